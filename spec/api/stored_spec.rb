# frozen_string_literal: true

# Databases of older states of the program, made by their own code: brought up to today, undone and done again all the way.
RSpec.describe "Stored songs" do
  def apart(song, heard) = Stored.readings(song).flatten.zip(heard.flatten).map { |one, other| (one - other).abs }.max

  Stored.names.each do |name|
    it "#{name}: sounds as it did after every step, there and back, and keeps what waited to be done again" do
      stored = Stored.new(name)
      stored.opened do
        open_songs = OpenSongs.new
        log = EditLog.new(open_songs, -> { Server.sounds })
        id = SongRow.first.id
        song = -> { open_songs.fetch(id).song }
        done = stored.heard.size - 3
        expect(apart(song.call, stored.heard[done])).to be < 2e-9
        states = { done => json_of(song.call) }
        walked = (done - 1).downto(0).map do |place|
          log.undo(id, open_songs.fetch(id).revision)
          states[place] = json_of(song.call)
          expect(json_of(SongRows.read(id))).to eq states[place]
          apart(song.call, stored.heard[place])
        end
        expect { log.undo(id, open_songs.fetch(id).revision) }.to raise_error(KindSatchel::InvalidInput, /nothing to undo/)
        again = (1..(done + 2)).map do |place|
          log.redo(id, open_songs.fetch(id).revision)
          expect(json_of(song.call)).to eq(states[place]), "place #{place}" if states[place]
          apart(song.call, stored.heard[place])
        end
        expect([*walked, *again].max).to be < 2e-9
        # Over many steps at once it comes to the same places.
        [0, done, 0, done + 2, 1].each do |place|
          log.go_to(id, open_songs.fetch(id).revision, place)
          expect(json_of(song.call)).to eq(states.fetch(place) { json_of(song.call) }), "gone to #{place}"
        end
        (done + 1).times { log.redo(id, open_songs.fetch(id).revision) }
        expect { log.redo(id, open_songs.fetch(id).revision) }.to raise_error(KindSatchel::InvalidInput, /nothing to redo/)
      end
    end
  end
end
