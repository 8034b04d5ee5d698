# frozen_string_literal: true

require "fileutils"
require "wavefile"
require_relative "synthesis"
require_relative "kit"
require_relative "gulls"

# Makes the sounds that ship with the app, as WAV files. The same every time: the noise has a fixed seed.
module Sounds
  ALL = {
    "kick" => -> { Kit.kick }, "snare" => -> { Kit.snare }, "clap" => -> { Kit.clap }, "rim" => -> { Kit.rim },
    "hat" => -> { Kit.hat(0.05) }, "open-hat" => -> { Kit.hat(0.28) }, "shaker" => -> { Kit.shaker }, "crate" => -> { Kit.crate },
    "gull-loop" => -> { Gulls.loop }
  }.freeze

  # @param folder [String] made when missing; files that are there are kept
  # @return [Integer] how many files were made
  def self.make(folder)
    FileUtils.mkdir_p(folder)
    missing = ALL.reject { |id, _| File.exist?(File.join(folder, "#{id}.wav")) }
    missing.each { |id, sound| write(File.join(folder, "#{id}.wav"), sound.call) }
    missing.size
  end

  def self.write(path, samples)
    format = WaveFile::Format.new(:mono, :pcm_16, Synthesis::RATE)
    buffer = WaveFile::Buffer.new(Synthesis.levelled(samples), WaveFile::Format.new(:mono, :float, Synthesis::RATE))
    WaveFile::Writer.new("#{path}.part", format) { |writer| writer.write(buffer) }
    File.rename("#{path}.part", path)
  end
  private_class_method :write
end
