# frozen_string_literal: true

require "fileutils"
require "securerandom"
require "zip"

# Folders in which what is handed over waits until it is fetched, each under a token; one goes when it was fetched, is
# called off, fails, or has waited too long.
class Workspaces
  TOKEN = /\A[0-9a-f]{32}\z/
  LONGEST_WAIT_SECONDS = 3600
  # The largest sound that is taken in, in bytes: an hour of stereo at 96 kHz in floats.
  LARGEST_SOUND = 3 * 1024 * 1024 * 1024
  NAME = %r{\A(?:(?:stems|loops)/)?[\p{L}\p{N}][\p{L}\p{M}\p{N} ._-]{0,120}\.wav\z}

  # Raised for one that is not there (any more).
  class Missing < StandardError; end

  def initialize(root)
    @root = root
  end

  # @yieldparam folder [String] made for it; gone again when the block fails
  # @return [String] its token
  def open
    clear(LONGEST_WAIT_SECONDS)
    token = SecureRandom.hex(16)
    FileUtils.mkdir_p(path(token, "files"))
    yield path(token, "files")
    token
  rescue Exception # rubocop:disable Lint/RescueException -- nothing half-written is left, whatever happened
    close(token) if token
    raise
  end

  # @return [Array<String>] names of its files
  # @raise [Missing]
  def files(token)
    folder = folder!(token)
    Dir.glob("**/*", base: folder).select { |name| File.file?(File.join(folder, name)) }.sort
  end

  # @return [String] where a file of it is, or is to be
  def file(token, name) = File.join(folder!(token), name)

  # Puts all of it into one archive; sounds as they are, since they hardly get smaller.
  # @yieldparam share [Float] 0..1
  # @return [String] the archive
  def zip(token)
    folder, goal = folder!(token), path(token, "all.zip")
    names = files(token)
    total = [names.sum { |name| File.size(File.join(folder, name)) }, 1].max
    done = 0
    Zip::OutputStream.open(goal) do |zip|
      names.each do |name|
        name.end_with?(".wav") ? zip.put_next_entry(name, nil, nil, Zip::Entry::STORED) : zip.put_next_entry(name)
        File.open(File.join(folder, name), "rb") { |from| IO.copy_stream(from, zip) }
        yield (done += File.size(File.join(folder, name))) / total.to_f if block_given?
      end
    end
    goal
  rescue StandardError
    FileUtils.rm_f(goal) if goal
    raise
  end

  # @return [String]
  # @raise [Missing]
  def archive(token)
    folder!(token)
    path(token, "all.zip").tap { |file| raise Missing unless File.exist?(file) }
  end

  # Throws a folder away.
  def close(token) = TOKEN.match?(token) && FileUtils.rm_rf(File.join(@root, token))

  # Lets go of what has waited longer than so many seconds.
  def clear(seconds)
    Dir[File.join(@root, "*")].each { |folder| FileUtils.rm_rf(folder) if Time.now - File.mtime(folder) > seconds }
  rescue Errno::ENOENT
    nil
  end

  private

  def path(token, *names) = File.join(@root, token, *names)

  def folder!(token)
    folder = path(token, "files")
    TOKEN.match?(token.to_s) && File.directory?(folder) ? folder : raise(Missing)
  end
end
