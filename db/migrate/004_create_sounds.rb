# frozen_string_literal: true

# Recorded sounds, stored once by the digest of their bytes; the bytes lie in a folder beside the database. `word` is the id by
# which documents name a sound that ships with the app.
class CreateSounds < ActiveRecord::Migration[7.2]
  def change
    create_table :sounds do |t|
      t.string :digest, null: false, index: { unique: true }
      t.string :word, index: { unique: true }
      t.string :name, null: false
      t.integer :bytes, null: false
      t.integer :frames, null: false
      t.integer :rate, null: false
      t.integer :channels, null: false
      t.datetime :created_at, null: false
    end
  end
end
