# frozen_string_literal: true

# What the list shows of a song, worked out when it is first asked for after a change (see KindSatchel::Card).
class AddCardToSongs < ActiveRecord::Migration[7.2]
  def change
    add_column :songs, :card, :text
    add_column :songs, :card_revision, :integer
  end
end
