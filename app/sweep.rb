# frozen_string_literal: true

require "fileutils"
require "tmpdir"

# What a kill can leave: half-written sounds, sounds that nothing lists, files of work and of requests. Swept when the
# server starts; what is younger than an hour may still be somebody's.
module Sweep
  OLD_SECONDS = 3600
  # What files are called that work leaves in the folder for temporary ones.
  OURS = "satchel-*"

  module_function

  # @param sounds [SoundStore]
  # @param temporary [String] the folder for temporary files
  # @param now [Time]
  # @return [Array<String>] what was taken away
  def call(sounds, temporary: Dir.tmpdir, now: Time.now)
    gone = (lost_sounds(sounds) + Dir[File.join(temporary, OURS)]).select { |path| old?(path, now) }
    gone.each { |path| FileUtils.rm_rf(path) }
  end

  # Makes what only its owner is to read just that: the database with what belongs to it, and the sounds.
  # @param database [String] file
  def close(database)
    files = ["", "-wal", "-shm", ".lock"].map do |ending|
      "#{database}#{ending}"
    end.select { |path| File.file?(path) && File.owned?(path) }
    FileUtils.chmod(0o600, files)
    FileUtils.chmod(0o700, ["#{database}-sounds", "#{database}-hand-overs"].select do |path|
      File.directory?(path) && File.owned?(path)
    end)
  end

  # Parts of sounds, and sounds without a row.
  def lost_sounds(sounds)
    known = Database.guarded { SoundRow.pluck(:digest) }.to_h { |digest| [digest, true] }
    Dir[File.join(sounds.folder, "*/*")].select do |path|
      path.end_with?(".part") || !known.key?(File.basename(path, ".wav"))
    end
  end

  def old?(path, now)
    now - File.lstat(path).mtime > OLD_SECONDS && File.owned?(path)
  rescue Errno::ENOENT
    false
  end
  private_class_method :lost_sounds, :old?
end
