# frozen_string_literal: true

module KindSatchel
  # A named place in a song.
  class Marker < Value.of(:id, :tick, :name)
    # The most of one song.
    MOST = 500

    def check
      whole!("/tick", tick)
      unless name.is_a?(String) && name.strip.size.between?(
        1, Song::MOST_NAME
      )
        fault!("bad_name", "/name",
               "A name has 1 to #{Song::MOST_NAME} characters.")
      end
    end
  end
end
