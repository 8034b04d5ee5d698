# frozen_string_literal: true

require "uri"

# What files are called that leave the app.
module FileNames
  module_function

  # Letters and digits of any script stay.
  def stem(name)
    stem = name.downcase.gsub(/[^\p{L}\p{M}\p{N}]+/, "-").gsub(/\A-|-\z/, "")
    stem.empty? ? "song" : stem
  end

  # @param names [Array<String>]
  # @return [Array<String>] a stem for each, none of them twice
  def each_once(names)
    used = Hash.new(0)
    names.map { |name| stem(name) }.map { |plain| (used[plain] += 1) == 1 ? plain : "#{plain}-#{used[plain]}" }
  end

  # A file name beyond ASCII goes as RFC 6266 has it.
  def disposition(name)
    plain = name.gsub(/[^\x20-\x7e]/, "_")
    "attachment; filename=\"#{plain}\"; filename*=UTF-8''#{URI.encode_www_form_component(name).gsub('+', '%20')}"
  end
end
