# frozen_string_literal: true

require "socket"

RSpec.describe "Listening tabs" do
  let(:listeners) { Listeners.new }
  let(:pair) { UNIXSocket.pair }

  # What a tab has read, event by event.
  def events(socket, count)
    text = +""
    text << socket.readpartial(65_536) until text.scan(/^event: /).size >= count && text.end_with?("\n\n")
    text.scan(/^event: (\w+)\ndata: (.*)$/).map { |name, data| [name, JSON.parse(data)] }
  end

  it "loses nothing of what a slow tab has not taken yet" do
    listeners.add(1, pair[0], { revision: 5 })
    20.times { |i| listeners.tell(1, "changed", { i:, text: "x" * 60_000 }) }
    sleep 0.2
    found = events(pair[1], 21)
    expect(found.map(&:first)).to eq ["snapshot"] + (["changed"] * 20)
    expect(found.drop(1).map { |_, data| [data["i"], data["text"].size] }).to eq(Array.new(20) { |i| [i, 60_000] })
  end

  it "lets go of a tab that has gone" do
    listeners.add(1, pair[0], { revision: 5 })
    pair[1].close
    listeners.tell(1, "changed", {})
    50.times { listeners.any?(1) ? sleep(0.1) : break }
    expect([listeners.any?(1), listeners.size]).to eq [false, 0]
  end

  it "lets go of a tab whose socket somebody else closed, and serves the others" do
    other = UNIXSocket.pair
    [pair, other].each do |ours, theirs|
      listeners.add(1, ours, { revision: 5 })
      events(theirs, 1)
    end
    pair[0].close
    expect { 3.times { |i| listeners.tell(1, "changed", { i: }) && sleep(0.05) } }.not_to output.to_stderr
    expect(events(other[1], 3).map(&:last)).to eq [{ "i" => 0 }, { "i" => 1 }, { "i" => 2 }]
    expect(listeners.size).to eq 1
  end

  it "writes nothing itself: what is told to a tab that does not read waits, and too much of it lets go of the tab" do
    listeners.add(1, pair[0], { revision: 5 })
    40.times { listeners.tell(1, "changed", { text: "x" * 200_000 }) }
    50.times { listeners.any?(1) ? sleep(0.1) : break }
    expect([listeners.any?(1), pair[0].closed?]).to eq [false, true]
  end

  it "lets go of a tab that takes nothing for a while, not of one that is only slow" do
    stub_const("Outlet::STUCK_SECONDS", 0.6)
    slow = UNIXSocket.pair
    [pair, slow].each { |ours, _| listeners.add(1, ours, { revision: 5 }) }
    8.times { listeners.tell(1, "changed", { text: "x" * 200_000 }) }
    reading = Thread.new { Array.new(20) { slow[1].readpartial(65_536).bytesize.tap { sleep 0.1 } }.sum }
    expect(reading.value).to be > 500_000
    expect([pair[0].closed?, slow[0].closed?]).to eq [true, false]
  end

  it "stays with its tabs where keys cannot be looked at, and lets go of a withdrawn one when they can" do
    trouble = true
    good = lambda do |key|
      raise "the shelf is away" if trouble

      key != 7
    end
    stub_const("Rounds::KEYS_SECONDS", 0.05)
    keyed = Listeners.new(good:)
    trouble = false
    keyed.add(1, pair[0], { revision: 5 }, key: 8)
    events(pair[1], 1)
    trouble = true
    heard = +""
    allow(keyed).to receive(:warn) { |words| heard << words }
    sleep 0.2
    keyed.tell(1, "changed", { i: 1 })
    expect(events(pair[1], 1).map(&:last)).to eq [{ "i" => 1 }]
    20.times { heard.empty? ? keyed.tell(1, "changed", {}) && sleep(0.05) : break }
    expect(heard).to include("keys could not be looked at (RuntimeError: the shelf is away)")
    keyed.withdraw(8)
    trouble = false
    50.times { keyed.any?(1) ? sleep(0.05) : break }
    expect(keyed.any?(1)).to be false
  end

  it "carries the change itself, and tells an undo as an undo" do
    id = plant
    Server.listeners.add(id, pair[0], { revision: 1 })
    edit(id, "set_knob", { address: "rope-bass/drive/mix", value: 0.1 }, tab: "mine")
    post_json("/api/songs/#{id}/undo", { revision: 2, tab: "mine" })
    done, undone = events(pair[1], 3).drop(1).map(&:last)
    expect(done).to include("step" => "edit", "revision" => 2, "tab" => "mine", "undo" => done["words"])
    expect(done["change"]["parts"].map { |kind, part_id,| [kind, part_id] }).to eq [%w[track rope-bass]]
    expect(done["change"]["touched"].keys).to eq ["rope-bass/drive/mix"]
    expect(undone).to include("step" => "undo", "revision" => 3, "words" => done["words"], "redo" => done["words"])
  end
end
