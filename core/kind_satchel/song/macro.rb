# frozen_string_literal: true

module KindSatchel
  # What a macro does to one parameter: `stops` are [place of the macro, value of the target], both normalised, in
  # order of place; straight between. Of two at one place the later counts from there on; before the first and after
  # the last these hold.
  class Drive < Value.of(:target, :stops)
    MOST_STOPS = 64

    # @param target [Address]
    # @param low [Float] the value at the foot of the macro's travel
    # @param high [Float] the value at its top; below `low` it goes the other way
    def self.plain(target, low = 0.0, high = 1.0) = new(target:, stops: [[0.0, low], [1.0, high]])

    def check
      stops.freeze
      unless stops.size.between?(2, MOST_STOPS)
        fault!("out_of_range", "/stops", "A drive has 2 to #{MOST_STOPS} stops.")
      end
      stops.each_with_index { |stop, i| stop.each { |number| number!("/stops/#{i}", number, 0..1) } }
      unless stops.each_cons(2).all? do |(a, _), (b, _)|
        a <= b
      end
        fault!("unsorted", "/stops",
               "The stops of a drive stand in order of place.")
      end
    end

    # @param place [Float] of the macro, 0..1
    # @return [Float] the value of the target
    def at(place)
      after = stops.index { |at, _| at > place }
      return stops.last[1] unless after
      return stops.first[1] if after.zero?

      (from, a), (to, b) = stops[after - 1], stops[after]
      a + ((b - a) * (place - from) / (to - from))
    end

    # The straight lines it is made of.
    # @return [Array<Array(Float, Float, Float, Float)>] from place, to place, factor, offset: value = place * factor
    #   + offset
    def lines
      list = [[0.0, stops.first[0], 0.0, stops.first[1]]]
      stops.each_cons(2) do |(from, a), (to, b)|
        factor = to > from ? (b - a) / (to - from) : 0.0
        list << [from, to, factor, a - (factor * from)]
      end
      [*list, [stops.last[0], 1.0, 0.0, stops.last[1]]].select { |from, to,| to > from }
    end
  end

  # A knob of a macro strip: its `id` is that of the strip's parameter, `name` what people call it, `drives` what it
  # drives. The macro stands in the place of the knob of what it drives.
  class Macro < Value.of(:id, :name, :drives)
    MOST_NAME = 40

    def check
      unless name.is_a?(String) && name.strip.size.between?(
        1, MOST_NAME
      )
        fault!("bad_name", "/name",
               "A name has 1 to #{MOST_NAME} characters.")
      end
      drives.freeze
    end

    # @param target [Address]
    # @param drive [Drive, nil] nil takes it away
    def driving(target, drive) = with(drives: [*drives.reject { |one| one.target == target }, drive].compact)
  end
end
