# frozen_string_literal: true

# A recorded sound: the SHA-256 digest of its bytes, and what its head says.
class SoundRow < ActiveRecord::Base
  self.table_name = "sounds"

  # @return [Hash] what the list of sounds tells of it
  def entry
    { "id" => word || digest, "digest" => digest, "name" => name, "bytes" => bytes, "seconds" => frames.fdiv(rate).round(6),
      "rate" => rate, "channels" => channels, "shipped" => !word.nil? }
  end
end
