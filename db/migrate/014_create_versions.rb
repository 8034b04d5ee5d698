# frozen_string_literal: true

# Songs as they stood, under names: each a list of its parts by digest, which versions share.
class CreateVersions < ActiveRecord::Migration[7.2]
  def change
    create_table :version_parts, id: false do |t|
      t.string :digest, null: false, primary_key: true
      t.text :record, null: false
    end
    create_table :versions do |t|
      t.references :song, null: false, foreign_key: { on_delete: :cascade }
      t.string :name, null: false
      t.integer :revision, null: false
      t.text :parts, null: false
      t.datetime :created_at, null: false
    end
  end
end
