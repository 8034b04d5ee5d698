# frozen_string_literal: true

require_relative "../../app/backup"

# One archive of everything, made while songs are edited, checked and put back.
RSpec.describe "A backup" do
  let(:folder) { Dir.mktmpdir }
  let(:archive) { File.join(folder, "all.zip") }
  let(:goal) { File.join(folder, "again", "satchel.sqlite3") }

  after { FileUtils.rm_rf(folder) }

  # What a database holds of a song, read by itself.
  def parts_in(file, id)
    base = SQLite3::Database.new(file, readonly: true)
    rows = base.execute("SELECT kind, part_id, record FROM parts WHERE song_id = ?", [id])
    [KindSatchel::Parts.assemble(SongRows.parsed(rows)), base.execute("SELECT revision, done_edits FROM songs WHERE id = ?", [id])[0]]
  ensure
    base&.close
  end

  def refused(&) = expect(&).to raise_error(Backup::Refused)

  it "made while a song is edited holds it as it stood at one moment, with its undo and its sounds", :long do
    id = plant
    states = { snapshot(id).revision => snapshot(id).song }
    stop = false
    editing = Thread.new do
      until stop
        lane = snapshot(id).song.track("rope-bass").lanes[0].id
        Server.edit_log.edit(id, revision(id), "add_point", { "envelope_id" => lane, "tick" => 7 + (states.size * 11), "value" => rand.round(3) })
        states[snapshot(id).revision] = snapshot(id).song
      end
    end
    sleep 0.2
    made = Backup.write(Database.path, archive)
    stop = true
    editing.join
    expect(made["sounds"]).to eq SoundRow.count
    Backup.restore(archive, goal)
    song, (stood, done) = parts_in(goal, id)
    expect(states.size).to be > 2
    expect(song).to eq states.fetch(stood)
    expect(done).to eq stood - 1
    expect(Dir[File.join("#{goal}-sounds", "*", "*.wav")].size).to eq SoundRow.count
  end

  it "takes the place of what there is, which stays beside it; never while a server uses it" do
    plant
    Backup.write(Database.path, archive)
    refused { Backup.restore(archive, Database.path) }
    Backup.restore(archive, goal)
    before = Backup.restore(archive, goal)["before"]
    expect([File.exist?(before), File.exist?(goal), Dir[File.join(folder, "again", "*restore*")]]).to eq [true, true, []]
    refused { Backup.write(Database.path, archive) }
    refused { Backup.write(File.join(folder, "none"), "#{archive}2") }
  end

  it "that is damaged is refused, and nothing is touched" do
    plant
    Backup.write(Database.path, archive)
    broken = { "cut" => File.binread(archive)[0, 4000], "text" => "no archive" }
    Zip::File.open(archive) do |zip|
      name = zip.entries.map(&:name).find { |one| one.start_with?("sounds/") }
      { "sound" => [name, "other"], "database" => ["satchel.sqlite3", "SQLite"] }.each do |word, (entry, bytes)|
        broken[word] = Zip::OutputStream.write_buffer do |out|
          zip.entries.each { |one| out.put_next_entry(one.name) && out.write(one.name == entry ? bytes : one.get_input_stream.read) }
        end.string
      end
    end
    broken.each do |word, bytes|
      path = File.join(folder, "#{word}.zip").tap { |file| File.binwrite(file, bytes) }
      refused { Backup.restore(path, goal) }
      expect(Dir[File.join(folder, "again", "*")].map { |file| File.basename(file) }).to eq ["satchel.sqlite3.lock"]
    end
  end
end
