# frozen_string_literal: true

module KindSatchel
  module Timing
    # A time signature from a bar on, bars counted from 1.
    class MeterChange < Value.of(:bar, :meter)
      def check = whole!("/bar", bar, 1)
    end

    # The time signatures of a song as a list by bar: one from bar 1, each later one from the bar it names. Bars,
    # beats and positions of the song are counted through it.
    #
    # @example
    #   meters = Meters.steady(Meter.new(beats: 4, unit: 4)).changed(3, Meter.new(beats: 3, unit: 4))
    #   meters.text(2 * 3840 + 2880)  #=> "4.1.0"
    #   meters.parse("4.1")           #=> 10560
    class Meters < Value.of(:changes)
      MOST = 500
      LAST_BAR = 100_000

      # From a tick on, which begins bar `bar`.
      Section = Struct.new(:bar, :tick, :meter)

      # @param meter [Meter] one for the whole song
      def self.steady(meter) = new(changes: [MeterChange.new(bar: 1, meter:)])

      # @param list [Array<Array(Integer, Meter)>] ticks at which signatures begin, in order; one that begins inside a
      #   bar of the one before begins with the next bar
      # @return [Meters]
      def self.from_ticks(list)
        first, *rest = list
        rest.reduce(steady(first.last)) { |meters, (tick, meter)| meters.changed(meters.bar_from(tick), meter) }
      end

      def check
        changes.freeze
        fault!("empty", "", "A song needs a time signature from bar 1.") unless changes.first&.bar == 1
        fault!("too_many", "", "A song has at most #{MOST} time signatures.") if changes.size > MOST
        if changes.last.bar > LAST_BAR
          fault!("out_of_range", "",
                 "A time signature begins at bar #{LAST_BAR} at the latest.")
        end
        changes.each_cons(2).with_index(1) do |(a, b), i|
          fault!("unsorted", "/#{i}/bar", "Time signatures stand in order, one to a bar.") if b.bar <= a.bar
        end
      end

      # @return [Array<Section>]
      def sections
        memo(:sections) do
          changes.each_with_object([]) do |change, list|
            last = list.last
            list << Section.new(change.bar, last ? last.tick + ((change.bar - last.bar) * last.meter.bar_ticks) : 0,
                                change.meter)
          end
        end
      end

      # @param tick [Integer] ticks from the start of the song
      # @return [Meter]
      def at(tick) = section_at(tick).meter

      # @return [Integer] the bar a tick lies in, counted from 1
      def bar_at(tick) = section_at(tick).then { |one| one.bar + ((tick - one.tick) / one.meter.bar_ticks) }

      # @return [Integer] the first bar that begins at a tick or after it
      def bar_from(tick) = bar_at(tick).then { |bar| start_of(bar) == tick ? bar : bar + 1 }

      # @return [Integer] the tick a bar begins at
      def start_of(bar)
        section = sections.reverse_each.find { |one| one.bar <= bar } || sections.first
        section.tick + ((bar - section.bar) * section.meter.bar_ticks)
      end

      # @return [Integer] the end of the bar that a tick lies in, or the tick itself where a bar begins
      def rounded_up(tick) = start_of(bar_from(tick))

      # @param grid_ticks [Integer] above 0
      # @return [Integer] the nearest line of a grid that is counted from where each signature begins
      def line_near(tick, grid_ticks)
        section = section_at(tick)
        line = section.tick + ((tick - section.tick).fdiv(grid_ticks).round * grid_ticks)
        following = sections[sections.index(section) + 1]
        following ? [line, following.tick].min : line
      end

      # Beats of a stretch.
      # @return [Array<Array(Integer, Boolean)>] ticks, each with whether a bar begins there
      def beats(from, to)
        sections.each_with_index.flat_map do |section, i|
          beat, finish = section.meter.beat_ticks, [sections[i + 1]&.tick || to, to].min
          first = [(from - section.tick).fdiv(beat).ceil, 0].max
          (first...[(finish - section.tick).fdiv(beat).ceil, first].max).map do |count|
            [section.tick + (count * beat), (count % section.meter.beats).zero?]
          end
        end
      end

      # The same with another signature from a bar up to the next change; what would say what holds already is left out.
      # @return [Meters]
      def changed(bar, meter)
        others = changes.reject { |change| change.bar == bar }
        plain([*others, MeterChange.new(bar:, meter:)].sort_by(&:bar))
      end

      # @return [Meters] without the signature that begins at a bar
      def without(bar) = plain(changes.reject { |change| change.bar == bar })

      # Signatures by the tick they begin at.
      # @return [Array<Array(Integer, Meter)>]
      def ticks = sections.map { |one| [one.tick, one.meter] }

      # A stretch by itself, from tick 0.
      # @return [Array<Array(Integer, Meter)>]
      def cut(from, to)
        [[0, at(from)], *ticks.select { |tick, _| tick > from && tick < to }.map { |tick, meter| [tick - from, meter] }]
      end

      # A stretch replaced by another; what follows moves `later` ticks, in its own signature.
      # @param middle [Array<Array(Integer, Meter)>] from tick 0
      # @return [Meters]
      def spliced(from, to, middle, later: from - to)
        before = ticks.select { |tick, _| tick < from }
        rest = cut(to, LAST_TICK).map { |tick, meter| [tick + to + later, meter] }
        Meters.from_ticks([*before, *middle.map { |tick, meter| [tick + from, meter] }, *rest])
      end

      # @return [String] bar.beat.tick, counted from 1.1.0
      def text(tick)
        section = section_at(tick)
        section.meter.text(tick - section.tick, bar: section.bar)
      end

      # @param ticks [Integer] a length
      # @param from [Integer] where it begins: bars and beats are those of the signature there
      # @return [String] "2 bars", "1 bar 3 beats"
      def span_text(ticks, from: 0) = at(from).span_text(ticks)

      # @param text [String] "5", "5.3" or "5.3.120"
      # @return [Integer] ticks from the start of the song
      # @raise [InvalidInput] when the text is no position in the signature of its bar
      def parse(text)
        bar = text[/\A\s*(\d{1,6})/, 1].to_i.clamp(1, LAST_BAR + 1)
        section = sections.reverse_each.find { |one| one.bar <= bar }
        section.meter.parse(text, bar: section.bar) + section.tick
      end

      private

      def section_at(tick)
        return sections.first if sections.size == 1

        i = sections.bsearch_index { |one| one.tick > tick } || sections.size
        sections[[i - 1, 0].max]
      end

      def plain(list)
        Meters.new(changes: list.each_with_object([]) do |change, kept|
          kept << change unless kept.last&.meter == change.meter
        end)
      end
    end
  end
end
