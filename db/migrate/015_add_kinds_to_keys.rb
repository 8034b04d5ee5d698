# frozen_string_literal: true

# What each key allows, of which song, and what kind of device holds it. Those that were there before allowed everything a studio does.
class AddKindsToKeys < ActiveRecord::Migration[7.2]
  def change
    add_column :keys, :kind, :string, null: false, default: "studio"
    add_column :keys, :song_id, :integer
    add_column :keys, :device, :string
  end
end
