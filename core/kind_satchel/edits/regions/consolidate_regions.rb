# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes one clip of what regions of one track play, their moves written out with it; one region is cropped to what
    # it plays. How much that changes what is heard is said.
    module ConsolidateRegions
      def self.call(song, input)
        placed = Regions.named(song, input[:region_ids])
        made = Conversion::OneClip.call(song, placed)
        [made.song, "make #{Regions.words(song, placed)} one clip", [*LayOut.notices(made), *left(made.left)]]
      end

      def self.left(names)
        if names.empty?
          []
        else
          [Notice.new("lost", [],
                      "#{names.join(', ')}, switched off, #{names.size == 1 ? 'is' : 'are'} left out")]
        end
      end
      private_class_method :left
    end
  end
end
