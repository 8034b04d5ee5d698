# frozen_string_literal: true

# The version of the form a song's parts are stored in, and the places that sound different since it was brought up, until
# somebody has seen them.
class AddFormatToSongs < ActiveRecord::Migration[7.2]
  def change
    add_column :songs, :format, :integer, null: false, default: 1
    add_column :songs, :places, :text
  end
end
