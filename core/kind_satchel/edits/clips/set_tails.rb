# frozen_string_literal: true

module KindSatchel
  module Edits
    # Whether the effects of a clip ring on after its regions (`ring`), or are silent with their end (`stop`).
    module SetTails
      def self.call(song, input)
        clip = song.clip(input[:clip_id])
        ring = "let the tails of #{clip.name} ring"
        words = input[:tails] == "ring" ? ring : "stop the tails of #{clip.name} with its regions"
        [song.with_clip(clip.with(tails: input[:tails])), words]
      end
    end
  end
end
