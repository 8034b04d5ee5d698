# frozen_string_literal: true

# What the controls of controllers turn: a list for each song, and one, without a song, for all of them.
class CreateMappings < ActiveRecord::Migration[7.2]
  def change
    create_table :mappings do |t|
      t.references :song, foreign_key: { on_delete: :cascade }, index: { unique: true }
      t.text :list, null: false
    end
  end
end
