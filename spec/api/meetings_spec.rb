# frozen_string_literal: true

# Where two threads meet: each lock is held to what it is there for, by latches that have them meet just there.
RSpec.describe "Two at once" do
  let(:id) { plant }

  # Until a thread waits for something.
  def waiting!(thread)
    500.times { thread.stop? ? return : sleep(0.01) }
    raise "It does not wait."
  end

  def stale?(thread)
    thread.value
    false
  rescue OpenSongs::Stale
    true
  end

  def rename(name, revision = 1) = Server.edit_log.edit(id, revision, "rename_song", { "name" => name })

  it "an edit that was overtaken between its look and its turn is stale, and nothing of it is kept" do
    snapshot(id)
    slow = nil
    Database.alone do
      slow = Thread.new { rename("Slow") }.tap { |thread| thread.report_on_exception = false }
      waiting!(slow)
      rename("Fast")
    end
    expect(stale?(slow)).to be true
    expect([snapshot(id).song.name, SongRows.read(id).name, EditRow.where(song_id: id).pluck(:words).size]).to eq ["Fast", "Fast", 1]
  end

  it "a writer waits as long as another writes, beyond the patience of the file, and finds what that wrote" do
    id # is planted before anybody writes
    inside, leave = Queue.new, Queue.new
    first = Thread.new do
      Database.write do
        inside << 1
        leave.pop
        SongRow.where(id:).update_all(name: "First")
      end
    end
    inside.pop
    second = Thread.new { Database.write { SongRow.where(id:).pick(:name) } }.tap { |thread| thread.report_on_exception = false }
    sleep Database::PATIENCE_SECONDS + 0.4
    expect(second).to be_alive
    leave << 1
    expect([first.value, second.value]).to eq [1, "First"]
  end

  it "a lap of a pass that goes into a step ends what waited to be done again" do
    turn = ->(value) { edit(id, "set_knob", { address: "rope-bass/drive/mix", value:, pass: "one" }) }
    turn.call(0.2)
    edit(id, "rename_song", { name: "Later" })
    post_json("/api/songs/#{id}/undo", { revision: revision(id) })
    turn.call(0.7)
    expect(EditRow.where(song_id: id).pluck(:place)).to eq [1]
    expect(post_json("/api/songs/#{id}/redo", { revision: revision(id) })["faults"][0]["code"]).to eq "nothing_to_redo"
    post_json("/api/songs/#{id}/undo", { revision: revision(id) })
    expect(json_of(snapshot(id).song)).to eq json_of(DemoSong.build)
  end

  it "two that open one song read it once" do
    id
    open_songs, entered, go, reads = OpenSongs.new, Queue.new, Queue.new, 0
    allow(SongRows).to receive(:texts).and_wrap_original do |texts, *rest|
      reads += 1
      entered << 1
      go.pop
      texts.call(*rest)
    end
    first = Thread.new { open_songs.fetch(id) }
    entered.pop
    second = Thread.new { open_songs.fetch(id) }
    waiting!(second)
    2.times { go << 1 }
    expect([first.value.song.equal?(second.value.song), reads]).to eq [true, 1]
  end

  it "two that are the first to come into the rounds begin them once" do
    listeners, pairs = Listeners.new, Array.new(2) { UNIXSocket.pair }
    come, inside, go, begun = Queue.new, Queue.new, Queue.new, 0
    comers = pairs.map { |ours,| Thread.new { come.pop && listeners.add(1, ours, {}) } }
    allow(Thread).to receive(:new).and_wrap_original do |made, *rest, &block|
      begun += 1
      inside << 1
      go.pop
      made.call(*rest, &block)
    end
    come << 1
    inside.pop
    come << 1
    comers.each { |comer| waiting!(comer) }
    2.times { go << 1 }
    comers.each(&:value)
    expect([begun, pairs.map { |_, theirs| theirs.readpartial(50)[0, 15] }]).to eq [1, ["HTTP/1.1 200 OK"] * 2]
  end

  it "two rounds of long work never have more places than there are" do
    turns, inside, most, now, lock = Turns.new(2, waiting: 8), Queue.new, 0, 0, Mutex.new
    workers = Array.new(6) do
      Thread.new do
        turns.take(1, ->(_) {}) do
          lock.synchronize { most = [most, now += 1].max }
          inside << 1
          sleep 0.02
          lock.synchronize { now -= 1 }
        end
      end
    end
    workers.each(&:value)
    expect([inside.size, most]).to eq [6, 2]
  end
end
