# frozen_string_literal: true

require_relative "demo_song"

# Puts the demo song on an empty shelf.
module DemoSeed
  # @return [Integer, nil] the id of the demo song; nil when its owner has taken it off the shelf
  def self.plant
    Server.shelf.add(DemoSong.build) if SongRow.none?
    SongRow.on_shelf.find_by(name: "Low Tide Market")&.id
  end
end
