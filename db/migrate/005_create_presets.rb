# frozen_string_literal: true

# Settings of devices and of whole chains, kept under a name for all songs. `device` is the type of a device, nil for a chain.
class CreatePresets < ActiveRecord::Migration[7.2]
  def change
    create_table :presets do |t|
      t.string :name, null: false
      t.string :device
      t.text :chain, null: false
      t.datetime :created_at, null: false
      t.index %i[device name], unique: true
    end
  end
end
