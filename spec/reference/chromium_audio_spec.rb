# frozen_string_literal: true

# Source: W3C Web Audio API 1.0 as Chromium's own OfflineAudioContext renders it. What the core flattened is played
# there and the samples are read back.
RATE = 8000

RSpec.describe "What Chromium plays of the core's streams" do
  before(:context) { Capybara.current_session.visit("/") }

  # Renders automation of a constant source. `calls` are [method, arguments...] on its offset.
  def render(calls, seconds)
    page.evaluate_async_script(<<~JS, calls, seconds, RATE)
      const [calls, seconds, rate, done] = arguments;
      const context = new OfflineAudioContext(1, Math.ceil(seconds * rate), rate);
      const source = new ConstantSourceNode(context, { offset: 0 });
      for (const [name, ...values] of calls) source.offset[name](...values);
      source.connect(context.destination);
      source.start();
      context.startRendering().then((buffer) => done(Array.from(buffer.getChannelData(0))));
    JS
  end

  # A stream as automation: ramps to each corner, a jump set at once.
  def calls_for(corners)
    corners.each_with_index.map do |(seconds, value), i|
      jump = i.zero? || corners[i - 1][0] == seconds
      [jump ? "setValueAtTime" : "linearRampToValueAtTime", value, seconds]
    end
  end

  def play(song, target, seconds)
    resolver = KindSatchel::Heard::Resolver.new(song, address(target))
    corners = KindSatchel::Heard::Ramps.new(resolver).corners(0, song.tempo.tick_at(seconds).ceil)
    [render(calls_for(corners), seconds), resolver]
  end

  def share(scale, engine) = scale.gain? ? Math.sqrt([engine, 0].max / scale.peak) : scale.normalised(engine / scale.unit.engine_factor)

  song = DemoSong.build
  %w[rope-bass/synth/cutoff fog-pad/channel/volume gull-chop/channel/pan bell-buoy/pluck/ring].each do |target|
    it "plays #{target} of the demo within 1/1000 of the travel" do
      samples, resolver = play(song, target, 12.0)
      jumps = resolver.pieces(0, 40_000).map(&:from)
      errors = (0...samples.size).step(37).filter_map do |i|
        tick = song.tempo.tick_at(i.fdiv(RATE))
        next if jumps.any? { |jump| (jump - tick).abs < 4 }

        (share(resolver.scale, samples[i]) - resolver.pieces(tick, tick + 1).first.at(tick)).abs
      end
      expect(errors.size).to be > 2000
      expect(errors.max).to be <= KindSatchel::Heard::Ramps::TOLERANCE + 1e-4 # samples are 32-bit floats
    end
  end

  it "runs linearRampToValueAtTime as our straight segment" do
    samples = render([["setValueAtTime", 0.2, 0], ["linearRampToValueAtTime", 0.9, 1]], 1)
    move = envelope([0, 0.2], [RATE, 0.9])
    (0...RATE).step(101) { |i| expect(samples[i]).to be_within(1e-6).of(move.at(i)) }
  end

  it "runs exponentialRampToValueAtTime as our curved segment with k = ln(b/a)" do
    from, to = 0.05, 0.9
    samples = render([["setValueAtTime", from, 0], ["exponentialRampToValueAtTime", to, 1]], 1)
    move = envelope([0, from, Math.log(to / from) / KindSatchel::Shapes::Curved::STEEPNESS], [RATE, to])
    (0...RATE).step(101) { |i| expect(samples[i]).to be_within(1e-5).of(move.at(i)) }
  end

  # Source: StereoPannerNode, equal-power panning: gains cos and sin of a quarter turn; MMA RP-036 gives the same law.
  it "pans by the law our pan values are meant for" do
    pans = [-1, -0.5, 0, 0.3, 1]
    levels = page.evaluate_async_script(<<~JS, pans, RATE)
      const [pans, rate, done] = arguments;
      Promise.all(pans.map((pan) => {
        const context = new OfflineAudioContext(2, 128, rate);
        const source = new ConstantSourceNode(context, { channelCount: 1 });
        source.connect(new StereoPannerNode(context, { pan })).connect(context.destination);
        source.start();
        return context.startRendering().then((buffer) => [0, 1].map((side) => buffer.getChannelData(side)[100]));
      })).then(done);
    JS
    scale = KindSatchel::Devices::CHANNEL.parameter("pan").scale
    pans.zip(levels).each do |pan, (left, right)|
      turn = scale.normalised(pan * 100) * Math::PI / 2
      expect([scale.engine(scale.normalised(pan * 100)), left, right]).to match [
        be_within(1e-9).of(pan), be_within(1e-5).of(Math.cos(turn)), be_within(1e-5).of(Math.sin(turn))
      ]
    end
  end
end
