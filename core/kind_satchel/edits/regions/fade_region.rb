# frozen_string_literal: true

module KindSatchel
  module Edits
    # Fades a region in from silence, or out to it, over a length from its edge: an ordinary envelope of its clip that
    # scales the volume of its track and runs once over the region. What scales the volume there already goes on: the
    # fade is multiplied into it. An existing fade on that side gets the new length; 0 removes it. Where a fade in and
    # a fade out would overlap, both end at the middle of the overlap. A clip that other regions share is made separate
    # first.
    module FadeRegion
      # @return [Array(Song, String, Array<Notice>)]
      # @raise [InvalidInput] for carriers, which have no sound, for a length that cannot be read, and where the
      #   settings of what scales the volume are moved
      def self.call(song, input)
        song, notices = alone(song, song.directory.region(input[:region_id]))
        placed = song.directory.region(input[:region_id])
        clip = song.clip(placed.region.clip_id)
        length = length_of(song, placed.region, clip, input[:length])
        fade = RegionFade.new(song, placed, clip)
        envelopes, stray = fade.envelopes(input[:side], length, input[:curve])
        words = length.zero? ? "without its fade #{input[:side]}" : "fade #{input[:side]} over #{text(song, length)}"
        near = "within 0.2 % of the product with what scales it"
        rounded = Notice.new("difference", [clip.id], near) if stray
        next_song = song.with(next_id: song.next_id + 1).with_clip(clip.with(envelopes:))
        [next_song, "#{clip.name}: #{words}", [*notices, rounded].compact]
      end

      # @raise [InvalidInput]
      def self.alone(song, placed)
        clip = song.clip(placed.region.clip_id)
        if clip.carrier?
          raise InvalidInput.of("no_sound", "/region_id", "#{clip.name} carries moves only; it has no sound.")
        end

        sharers = song.directory.regions_of_clip(clip.id).size
        return [song, []] if sharers == 1

        apart, = SeparateRegions.call(song, { region_ids: [placed.region.id] })
        name = apart.clip(apart.directory.region(placed.region.id).region.clip_id).name
        others = sharers == 2 ? "another region keeps" : "#{sharers - 1} other regions keep"
        [apart, [Notice.new("separated", [clip.id], "it is #{name} now; #{others} #{clip.name}")]]
      end

      # @return [Integer] ticks, no more than the region has
      def self.length_of(song, region, clip, given)
        meter = song.meters_of(clip).at(0)
        ways = { bar_ticks: meter.bar_ticks, beat_ticks: meter.beat_ticks }
        given = InvalidInput.under("/length") { Timing::NoteLengths.parse(given, **ways) } unless given.is_a?(Numeric)
        given.round.clamp(0, region.length_ticks)
      end

      def self.text(song, ticks) = Timing::NoteLengths.text(ticks, bar_ticks: song.meters.at(0).bar_ticks)
      private_class_method :alone, :length_of, :text
    end
  end
end
