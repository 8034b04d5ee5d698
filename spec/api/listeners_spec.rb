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
    expect(found.map(&:first)).to eq ["standing"] + (["changed"] * 20)
    expect(found.drop(1).map { |_, data| [data["i"], data["text"].size] }).to eq(Array.new(20) { |i| [i, 60_000] })
  end

  it "lets go of a tab that has gone" do
    listeners.add(1, pair[0], { revision: 5 })
    pair[1].close
    2.times { listeners.tell(1, "changed", {}) }
    expect(listeners.any?(1)).to be false
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
