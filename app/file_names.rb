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

  # A file name beyond ASCII goes as RFC 6266 has it.
  def disposition(name)
    plain = name.gsub(/[^\x20-\x7e]/, "_")
    "attachment; filename=\"#{plain}\"; filename*=UTF-8''#{URI.encode_www_form_component(name).gsub('+', '%20')}"
  end
end
