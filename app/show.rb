# frozen_string_literal: true

# Shows a song from the shell, as long as nobody stops it: it is heard and looked at, and cannot be changed. Run as a
# program of its own by bin/satchel: ruby app/show.rb OPTIONS, as JSON: "song", "port", "store".
require_relative "one_song"

options = JSON.parse(ARGV.fetch(0))
begin
  Server.set :read_only, true
  over = Queue.new
  %w[INT TERM].each { |signal| trap(signal) { over << signal } }
  OneSong.new(options.fetch("song"), options.fetch("store")).served(options.fetch("port")) do |song, id, base|
    puts "#{song.name} is shown at #{base}/songs/#{id}  (Ctrl-C stops it)"
    $stdout.flush
    over.pop
  end
rescue KindSatchel::InvalidInput => e
  abort e.faults.join("\n")
rescue SystemCallError => e
  abort "#{e.message.sub(/ @ \S+/, '')}."
rescue RuntimeError => e
  abort e.message
end
