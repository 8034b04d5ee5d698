# frozen_string_literal: true

# A song as it stood, under a name; `parts` lists its parts as [kind, id, digest].
class VersionRow < ActiveRecord::Base
  self.table_name = "versions"

  # @return [Hash] as it is told to the page
  def entry = { "id" => id, "name" => name, "revision" => revision, "at" => created_at.utc.iso8601 }
end
