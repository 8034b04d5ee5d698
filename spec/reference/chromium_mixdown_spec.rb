# frozen_string_literal: true

require "open3"

# The mixdown against playing itself, recorded at the loudspeaker, by numpy and scipy; and against itself, made twice.
RSpec.describe "A mixdown" do
  let(:id) { plant }

  # Renders a stretch in the page; samples of the left channel as base64 of 32-bit floats.
  def render(from, to, taps: [], rate: 48_000)
    text = page.evaluate_async_script(<<~JS, from, to, taps, rate)
      const [from_tick, to_tick, taps, rate, done] = arguments;
      (async () => {
      const { render, withTail } = await import("/assets/devices.js");
      const text = (samples) => { let all = ""; const bytes = new Uint8Array(samples.buffer); for (let i = 0; i < bytes.length; i += 8192)
        all += String.fromCharCode(...bytes.subarray(i, i + 8192)); return btoa(all); };
      const made = await render({ from_tick, to_tick, rate, taps, silent: [] }, () => {}, new AbortController().signal);
      done(text(withTail(made, 0)[0]));
      })();
    JS
    text.unpack1("m")
  end

  def python(script, *streams)
    header = streams.map(&:bytesize).pack("V*")
    lead = <<~PYTHON
      import sys, json, struct, numpy as np
      data = sys.stdin.buffer.read(); n = #{streams.size}; sizes = struct.unpack('<%dI' % n, data[:4 * n]); at = 4 * n; s = []
      for size in sizes: s.append(np.frombuffer(data[at:at + size], dtype='<f4').astype(float)); at += size
    PYTHON
    out, err, status = Open3.capture3("/usr/bin/python3", "-c", lead + script, stdin_data: header + streams.join, binmode: true)
    status.success? ? JSON.parse(out) : raise(err)
  end

  def open_song(song_id)
    page.visit("/songs/#{song_id}")
    expect(page).to have_css("[data-testid='ruler']")
  end

  it "is the same made twice, to -90 dB, and its notes begin within a millisecond of their second", :long do
    open_song(id)
    one, other = Array.new(2) { render(16 * BAR, 20 * BAR) }
    apart = python("n = min(map(len, s)); print(json.dumps(float(20 * np.log10(np.sqrt(np.mean((s[0][:n] - s[1][:n]) ** 2)) + 1e-12))))", one, other)
    expect(apart).to be < -90
    kit = render(0, 4 * BAR, taps: ["crate-kit"])
    demo = snapshot(id).song
    first = KindSatchel::Heard::Events.new(demo).in_range(0, 4 * BAR).select { |event| event["track_id"] == "crate-kit" && event["pitch"] == 36 }
    seconds = first.map { |event| event["start_seconds"] }.uniq.select { |second| second > 0.2 }.first(4)
    # Where the lowest octaves rise first after a quiet moment: a kick, which begins at full swing.
    rises = python("print(json.dumps([int(np.argmax(np.abs(s[0][int(t * 48000) - 240:int(t * 48000) + 480]) > 0.02)) - 240 for t in #{seconds.inspect}]))", kit)
    expect(rises.map { |frames| frames / 48.0 }).to all(be_between(-1, 1.5))
  end

  it "sounds as playing does: every 50 ms within half a decibel, without drifting apart", :long do
    song = DemoSong.build
    alone = song.with(tracks: song.tracks.select { |track| %w[rope-bass boathouse echo-pier master].include?(track.id) }
                                  .map { |track| track.id == "rope-bass" ? track.with(output: "master") : track })
    used = alone.tracks.flat_map(&:regions).to_h { |region| [region.clip_id, true] }
    bass = alone.with(clips: song.clips.select { |clip_id, _| used[clip_id] }, range: song.range.with(on: false))
    found = Array.new(3).lazy.map { compared(plant(bass)) }.find { |one| one["worst"] < 0.5 }
    expect(found).not_to be_nil
    expect(found["drift_ms"]).to be < 1
  end

  # Plays, records what goes to the loudspeaker, and lays it over what is rendered of the same bars.
  def compared(song_id)
    open_song(song_id)
    page.driver.browser.page.command("Page.setBypassCSP", enabled: true)
    open_song(song_id)
    page.execute_script(<<~JS)
      const connect = AudioNode.prototype.connect;
      AudioNode.prototype.connect = function (to, ...rest) {
        if (to instanceof AudioDestinationNode && to.context instanceof AudioContext && !window.heard) {
          window.heard = [];
          // Told seldom, so that the page is not kept from playing.
          const code = `registerProcessor("ear", class extends AudioWorkletProcessor {
            all = new Float32Array(48000); at = 0;
            process([[input]]) {
              if (!input) return true;
              this.all.set(input, this.at); this.at += 128;
              if (this.at === this.all.length) { this.port.postMessage(this.all.slice()); this.at = 0; }
              return true;
            } })`;
          to.context.audioWorklet.addModule(URL.createObjectURL(new Blob([code], { type: "text/javascript" }))).then(() => {
            const ear = new AudioWorkletNode(to.context, "ear", { numberOfOutputs: 0 });
            ear.port.onmessage = ({ data }) => window.heard.push(data);
            connect.call(this, ear);
            window.rate = to.context.sampleRate;
          });
        }
        return connect.call(this, to, ...rest);
      };
      history.replaceState(null, "", location.pathname);
    JS
    page.find("button[aria-label='Play']").click
    sleep 9
    page.find("button[aria-label='Stop']").click
    played = page.evaluate_script(<<~JS).unpack1("m")
      (() => { const all = new Float32Array(window.heard.reduce((sum, one) => sum + one.length, 0)); let at = 0;
        for (const one of window.heard) { all.set(one, at); at += one.length; }
        let text = ""; const bytes = new Uint8Array(all.buffer); for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
        return btoa(text); })()
    JS
    rate = page.evaluate_script("window.rate")
    python(<<~PYTHON, played, render(4 * BAR, 8 * BAR, rate:))
      import scipy.signal as sg
      a, b = s
      rate = #{rate}
      def lag(x, y): return int(np.argmax(sg.correlate(x, y, mode='valid', method='fft') / np.sqrt(sg.correlate(x * x, np.ones(len(y)), mode='valid', method='fft') + 1e-3)))
      first, second = b[rate:3 * rate], b[4 * rate:6 * rate]
      one = lag(a[:int(4.5 * rate)], first) - rate
      near = one + 4 * rate - rate // 10
      two = near + lag(a[near:near + 2 * rate + rate // 5], second) - 4 * rate
      step, shift = rate // 20, rate // 1000
      level = lambda z: 20 * np.log10(np.sqrt(np.mean(z ** 2)) + 1e-9)
      apart = []
      for at in range(rate, 6 * rate - step, step):
        want = level(b[at:at + step])
        if want > -35: apart.append(min(abs(level(a[one + at + k:one + at + k + step]) - want) for k in range(-shift, shift + 1, max(1, shift // 8))))
      print(json.dumps({'worst': float(max(apart)), 'beyond': int(sum(x > 0.5 for x in apart)), 'drift_ms': abs(one - two) * 1000 / rate, 'blocks': len(apart)}))
    PYTHON
  end
end
