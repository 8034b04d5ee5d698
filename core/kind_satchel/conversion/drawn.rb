# frozen_string_literal: true

module KindSatchel
  module Conversion
    # An LFO turned into points as far as it is heard; of a clip as it is heard in its first region. Limits and depth
    # are taken in, unless they are moved: then they go on moving. What moved its rate or its wave has nothing to move
    # any more.
    module Drawn
      # How far lines may stray where nothing but them is to change, as a share of the travel.
      FINE = 0.00005

      module_function

      # @param home [Directory::Home]
      # @return [Envelope]
      def of(song, home)
        envelope, extent = home.envelope, Clocks.extent(song, home)
        region = home.clip && song.directory.regions_of_clip(home.clip.id).first&.region
        live = home.clip && region.nil? ? nil : Heard::LiveMove.of(song, envelope, region)
        return envelope.drawn(extent) unless live

        run = Heard::LiveMove.run(song, home, region, extent)
        points = points(live, envelope, run)
        (live.limits_move? ? envelope : envelope.bare).with(source: Sources::Drawn::PLAIN, points:)
      end

      # All that its settings do taken in, moved or not, as it is heard in its first region.
      # @param home [Directory::Home]
      # @return [Envelope] with full limits, full depth and nothing held; the same one where nothing moves its settings
      def taken_in(song, home)
        envelope = home.envelope
        region = home.clip && song.directory.regions_of_clip(home.clip.id).first&.region
        live = home.clip && region.nil? ? nil : Heard::LiveMove.of(song, envelope, region)
        return envelope unless live

        run = Heard::LiveMove.run(song, home, region, Clocks.extent(song, home))
        points = Written.of_arcs(live.enum_for(:each_arc, run, nil), live.allowed, FINE) do |tick, value|
          [run.position(tick).round, value]
        end
        envelope.bare.with(source: Sources::Drawn::PLAIN, points:, held: Envelope::NOTHING)
      end

      # @return [Array<String>] the names of its settings that are moved and that points do not have
      def idle(song, envelope)
        song.directory.moved_settings.fetch(envelope.id, []) & (Settings::OF_LFO - Settings::OF_ALL)
      end

      def points(live, envelope, run)
        unless live.limits_move?
          return Written.of_arcs(live.enum_for(:each_arc, run, nil), live.allowed) do |tick, value|
            [run.position(tick).round, value]
          end
        end

        least, most = Roles.full(envelope.role)
        span = live.most - live.least
        Written.of_arcs(live.enum_for(:each_base_arc, run, nil), live.allowed) do |tick, value|
          [run.position(tick).round, least + ((most - least) * (value - live.least) / span)]
        end
      end
      private_class_method :points
    end
  end
end
