# frozen_string_literal: true

module KindSatchel
  module Edits
    # Chooses, for the whole song, whether lane points go along when the regions under them are moved, copied or
    # removed.
    module SetPointsFollow
      def self.call(song, input)
        [song.with(points_follow: input[:on]),
         "#{input[:on] ? 'let' : 'stop'} lane points #{input[:on] ? 'follow' : 'following'} regions"]
      end
    end
  end
end
