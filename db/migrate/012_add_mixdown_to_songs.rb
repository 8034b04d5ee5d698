# frozen_string_literal: true

# How loud the last mixdown of a song was, in dBFS, and of which revision it was made.
class AddMixdownToSongs < ActiveRecord::Migration[7.2]
  def change
    add_column :songs, :mixdown_peak_db, :float
    add_column :songs, :mixdown_revision, :integer
  end
end
