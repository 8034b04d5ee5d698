# frozen_string_literal: true

# A device that may use the server, or an invitation to one.
class KeyRow < ActiveRecord::Base
  self.table_name = "keys"

  # @return [Hash] what the list of keys tells of it; nothing secret
  def entry
    { "id" => id, "name" => name, "kind" => kind, "device" => device,
      "entered_at" => entered_at&.iso8601, "seen_at" => seen_at&.iso8601,
      "expires_at" => entered_at ? nil : expires_at.iso8601 }
  end
end
