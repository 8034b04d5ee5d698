# frozen_string_literal: true

# What hands did while it played, kept beside a song: one row for each parameter of a pass, with its laps.
class CreatePasses < ActiveRecord::Migration[7.2]
  def change
    create_table :passes do |t|
      t.references :song, null: false, foreign_key: { on_delete: :cascade }, index: false
      t.string :pass, null: false
      t.string :address, null: false
      # How it was written: into, role, region_id, tolerance.
      t.text :ways, null: false
      # Every envelope that was written into: its points before, and a digest of them after.
      t.text :places, null: false
      # What is chosen of it: tolerance, parts, join_ticks; and what came of it: points, difference.
      t.text :written, null: false
      t.datetime :created_at, null: false
      t.index %i[song_id pass address], unique: true
    end
    create_table :takes do |t|
      t.references :pass, null: false, foreign_key: { on_delete: :cascade }, index: false
      t.integer :lap, null: false
      t.integer :from_tick, null: false
      t.integer :to_tick, null: false
      # Strokes as records, packed.
      t.binary :strokes, null: false
      t.index %i[pass_id lap], unique: true
    end
  end
end
