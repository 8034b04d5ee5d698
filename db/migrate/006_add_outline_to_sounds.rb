# frozen_string_literal: true

# What is seen and guessed of a sound, made once when it comes in (see WaveOutline).
class AddOutlineToSounds < ActiveRecord::Migration[7.2]
  def change
    add_column :sounds, :outline, :text
  end
end
