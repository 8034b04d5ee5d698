# frozen_string_literal: true

class CreateSongs < ActiveRecord::Migration[7.2]
  def change
    create_table :songs do |t|
      t.string :name, null: false
      t.integer :revision, null: false, default: 1
      t.integer :done_edits, null: false, default: 0
      t.datetime :deleted_at
      t.timestamps
    end

    create_table :parts do |t|
      t.references :song, null: false, foreign_key: { on_delete: :cascade }, index: false
      t.string :kind, null: false
      t.string :part_id, null: false
      t.text :record, null: false
      t.index %i[song_id kind part_id], unique: true
    end

    create_table :edits do |t|
      t.references :song, null: false, foreign_key: { on_delete: :cascade }, index: false
      t.integer :place, null: false
      t.string :name, null: false
      t.string :words, null: false
      t.text :inputs, null: false
      t.text :patch, null: false
      t.datetime :created_at, null: false
      t.index %i[song_id place], unique: true
    end
  end
end
