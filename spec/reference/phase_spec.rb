# frozen_string_literal: true

require "open3"

# The phase of LFOs whose rate is moved against Debian's scipy: scipy.integrate.quad (QUADPACK) of the rate, piece by piece.
RSpec.describe "The phase of an LFO" do
  def python(script, data)
    out, err, status = Open3.capture3("/usr/bin/python3", "-c", "import json,sys\ndata=json.load(sys.stdin)\n#{script}\n", stdin_data: JSON.generate(data))
    status.success? ? JSON.parse(out) : raise(err)
  end

  # What the rate is at a share of a segment is written out again here, by the formulas of the design, with none of the core's code.
  quadrature = <<~PYTHON
    from math import exp, log, cos, pi
    from scipy.integrate import quad
    def curved(u, c):
        k = 8 * c
        return u if abs(k) < 1e-9 else (exp(k * u) - 1) / (exp(k) - 1)
    def ess(u, c):
        return curved(2 * u, c) / 2 if u < 0.5 else 1 - curved(2 - 2 * u, c) / 2
    WEIGHTS = {"hold": lambda u, c: 0.0, "straight": lambda u, c: u, "curved": curved, "ess": ess}
    def rate(n):
        return 2.0 ** (11 * min(max(n, 0.0), 1.0) - 6) / 960
    def cycles(case):
        total, list_ = 0.0, case["points"]
        for (t0, v0, shape, c), (t1, v1, _, _) in zip(list_, list_[1:]):
            if t1 <= t0: continue
            value = lambda t: (v0 + (v1 - v0) * WEIGHTS[shape]((t - t0) / (t1 - t0), c)) * case["scale"] + case["shift"]
            cuts = [t0 + (t1 - t0) / 2]
            grid = [t0 + (t1 - t0) * i / 512 for i in range(513)]
            for a, b in zip(grid, grid[1:]):
                for limit in (0.0, 1.0):
                    x, y = value(a) - limit, value(b) - limit
                    if x * y < 0:
                        lo, hi = a, b
                        for _ in range(80):
                            mid = (lo + hi) / 2
                            lo, hi = (mid, hi) if (value(mid) - limit) * x > 0 else (lo, mid)
                        cuts.append(hi)
            places = [t0, *sorted(cuts), t1]
            total += sum(quad(lambda t: rate(value(t)), a, b, epsabs=1e-12, epsrel=1e-13, limit=200)[0] for a, b in zip(places, places[1:]) if b > a)
        return total
    print(json.dumps([cycles(case) for case in data]))
  PYTHON

  # A rate set by a lane, scaled and shifted by others, past its limits too.
  def rate_case(random)
    ticks = Array.new(3) { 1 + random.rand(4000) }.sort.uniq
    kinds = [["hold", 0.0], ["straight", 0.0], ["curved", (random.rand * 2) - 1], ["ess", (random.rand * 2) - 1]]
    points = [0, *ticks].map { |tick| [tick, random.rand.round(6), *kinds.sample(random:)] }
    { points:, scale: random.rand < 0.5 ? 1.0 : (0.2 + (random.rand * 0.8)).round(6), shift: random.rand < 0.4 ? ((random.rand * 1.2) - 0.6).round(6) : 0.0 }
  end

  def core(given)
    points = given[:points].map do |tick, value, kind, curve|
      settings = %w[curved ess].include?(kind) ? { "curve" => curve } : {}
      KindSatchel::Point.new(tick:, value:, shape: KindSatchel::Shapes.of({ "shape" => kind, **settings }))
    end
    lanes = [envelope(id: "wave", source: KindSatchel::Sources::Lfo.plain),
             envelope(id: "rate", target: "move/wave/rate").with(points:)]
    lanes << envelope([0, given[:scale], "hold"], id: "less", target: "move/wave/rate", role: "scale") if given[:scale] < 1
    lanes << envelope([0, given[:shift], "hold"], id: "more", target: "move/wave/rate", role: "shift") unless given[:shift].zero?
    song = small_song(lanes:)
    resolver = KindSatchel::Heard::Evaluation.of(song).signal(address("move/wave/rate"))
    KindSatchel::Heard::Integral.new(resolver, 0, KindSatchel::Heard::Integral::CyclesLaw.new(KindSatchel::Settings::RATE.scale))
  end

  # Seconds: the integral of 60 / tempo over quarter notes, by the same quadrature; the way back by scipy.optimize.brentq of the sum.
  clock = quadrature.sub(/^def rate.*?960$/m, "def rate(n):\n    return 60.0 / 960 / (10 + 390 * min(max(n, 0.0), 1.0))")

  def tempos(given)
    points = given[:points].map do |tick, value, kind, curve|
      settings = %w[curved ess].include?(kind) ? { "curve" => curve } : {}
      KindSatchel::Point.new(tick:, value:, shape: KindSatchel::Shapes.of({ "shape" => kind, **settings }))
    end
    tempo = ->(id, role) { envelope([0, given[:shift], "hold"], id:, target: "song/clock/tempo", role:) }
    song = small_song
    lanes = [envelope(id: "tempo", target: "song/clock/tempo").with(points:), (tempo.call("more", "shift") unless given[:shift].zero?)].compact
    song.with_track(song.track("master").with(lanes:)).tempo
  end

  it "and seconds are within 1e-9 of scipy's quadrature on 1,000 random tempos, additive, and come back" do
    random = Random.new(21)
    cases = Array.new(1000) { rate_case(random).merge(scale: 1.0) }
    cases.zip(python(clock, cases)).each do |one, seconds|
      tempo, to = tempos(one), one[:points].last[0]
      expect(tempo.seconds_at(to)).to be_within(1e-9).of(seconds)
      half = tempo.tick_at(seconds / 2)
      expect(tempo.seconds_at(half)).to be_within(1e-9).of(seconds / 2)
      middle = to / 2
      expect(tempo.seconds_at(middle) + (tempo.seconds_at(to) - tempo.seconds_at(middle))).to be_within(1e-12).of(tempo.seconds_at(to))
    end
  end

  it "is within 1e-9 cycles of scipy's quadrature on 1,000 random rates, additive, and comes back", :long do
    random = Random.new(20)
    cases = Array.new(1000) { rate_case(random) }
    expected = python(quadrature, cases)
    cases.zip(expected).each do |one, cycles|
      integral, to = core(one), one[:points].last[0]
      expect(integral.at(to)).to be_within(1e-9).of(cycles)
      found = nil
      integral.each(0, to + 1) { |stretch| found ||= stretch.tick_of(cycles / 2) if stretch.sum_at(stretch.to) >= cycles / 2 }
      expect(integral.at(found)).to be_within(1e-9).of(cycles / 2)
    end
  end

  it "of a straight rate has the closed form: cycles = d (r1 - r0) / ln(r1 / r0)" do
    rates = [0.5, 8.0]
    values = rates.map { |rate| (Math.log2(rate) + 6) / 11 }
    integral = core({ points: [[0, values[0], "straight", 0.0], [9600, values[1], "hold", 0.0]], scale: 1.0, shift: 0.0 })
    expect(integral.at(9600)).to be_within(1e-11).of(10 * (rates[1] - rates[0]) / Math.log(rates[1] / rates[0]))
  end
end
