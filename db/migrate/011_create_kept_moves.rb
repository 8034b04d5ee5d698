# frozen_string_literal: true

# Moves that people keep, by themselves, for all songs.
class CreateKeptMoves < ActiveRecord::Migration[7.2]
  def change
    create_table :kept_moves do |t|
      t.string :name, null: false
      t.text :record, null: false
      t.datetime :created_at, null: false
    end
  end
end
