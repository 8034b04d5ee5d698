# frozen_string_literal: true

# Keys of devices beyond this machine: an invitation that is good once, and, once it was taken, the device's own. Only digests are
# kept.
class CreateKeys < ActiveRecord::Migration[7.2]
  def change
    create_table :keys do |t|
      t.string :name, null: false
      t.string :invitation
      t.datetime :expires_at
      t.string :digest
      t.datetime :entered_at
      t.datetime :seen_at
      t.datetime :created_at, null: false
      t.index :digest, unique: true
      t.index :invitation, unique: true
    end
  end
end
