# frozen_string_literal: true

# What somebody listens to (tracks muted and soloed), beside the song and its log.
class AddListeningToSongs < ActiveRecord::Migration[7.2]
  def change = add_column(:songs, :listening, :text)
end
