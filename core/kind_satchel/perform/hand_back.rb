# frozen_string_literal: true

module KindSatchel
  module Perform
    # Parameters that a hand holds given back to what moves them.
    module HandBack
      # @param addresses [Array<Address>] held or not
      # @return [Song]
      def self.call(song, addresses)
        addresses.select { |address| song.held?(address) }.reduce(song) { |now, address| now.owned(address).held(nil) }
      end
    end
  end
end
