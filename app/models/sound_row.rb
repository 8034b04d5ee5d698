# frozen_string_literal: true

# A recorded sound: the SHA-256 digest of its bytes, and what its head says.
class SoundRow < ActiveRecord::Base
  self.table_name = "sounds"

  # @return [Float]
  def seconds = frames.fdiv(rate).round(6)

  # @return [Hash] what the list of sounds tells of it
  def entry
    { "id" => word || digest, "digest" => digest, "name" => name, "bytes" => bytes, "seconds" => seconds,
      "rate" => rate, "channels" => channels, "shipped" => !word.nil?,
      "guess" => outline && JSON.parse(outline)["guess"] }
  end
end
