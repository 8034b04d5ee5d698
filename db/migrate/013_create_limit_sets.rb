# frozen_string_literal: true

# What songs were handed over with last, and sets of limits under names, for all songs.
class CreateLimitSets < ActiveRecord::Migration[7.2]
  def change
    add_column :songs, :hand_over, :text
    create_table :limit_sets do |t|
      t.string :name, null: false, index: { unique: true }
      t.text :limits, null: false
    end
  end
end
