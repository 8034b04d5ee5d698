# frozen_string_literal: true

# What an edit needs besides the song and what was asked for: samples of a pass, or how loud sounds are. It is kept
# beside songs, and put into the inputs of the edit here.
module Filling
  module_function

  # @param song [KindSatchel::Song] as it stands
  # @param sounds [SoundStore]
  # @return [Hash] the inputs, filled in
  def of(song_id, song, name, inputs, sounds)
    if name == "follow_level"
      inputs.merge("sounds" => levels(song, inputs,
                                      sounds))
    else
      PassShelf.filled(song_id, name, inputs)
    end
  end

  # How loud the sounds are that are followed; those that are missing are left out.
  def levels(song, inputs, sounds)
    KindSatchel::Edits::FollowLevel.sounds(song, inputs).filter_map do |key|
      [key, sounds.energy(key)]
    rescue SoundStore::Missing
      nil
    end.to_h
  end
end
