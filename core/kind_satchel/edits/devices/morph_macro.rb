# frozen_string_literal: true

module KindSatchel
  module Edits
    # Lets a macro run through two to eight settings of a device along its travel: at each `place` (evenly, where none
    # are given) the parameters stand as that setting has them, and in between they go straight over; steps and
    # switches change half way. Only what differs is driven, and what the macro drove of that device before is no
    # more. `values` are normalised, by parameter; what is left out is as the device begins. Another driver is
    # replaced only with `replace`.
    module MorphMacro
      def self.call(song, input)
        macro = Macros.address!(song, input[:macro], "/macro")
        owner_id, device_id = input[:device].split("/", 2)
        owner = InvalidInput.under("/device") do
          song.owner(Address.new(owner_id:, device_id: device_id.to_s, parameter_id: "any"))
        end
        device = InvalidInput.under("/device") { owner.device(device_id.to_s) }
        if device.type_rules.role == "macros"
          raise InvalidInput.of("same_place", "/device",
                                "A macro does not morph its own strip.")
        end

        list = settings(device, input[:settings])
        drives = drives(device, list) { |id| Address.new(owner_id:, device_id:, parameter_id: id) }
        if drives.empty?
          raise InvalidInput.of("all_the_same", "/settings",
                                "These settings are all the same; there is nothing to morph.")
        end

        notices = drivers!(song, macro, drives, input)
        free = drives.reduce(song) { |now, drive| Macros.freed(now, drive.target) }
        next_song = Macros.change(free, macro) { |one| one.with(drives: [*others(one, owner_id, device_id), *drives]) }
        words = "let #{song.parameter_name(macro)} morph #{device.type_rules.name} of #{owner.name} through " \
                "#{list.size} settings"
        [next_song, words, notices]
      end

      def self.others(macro, owner_id, device_id)
        macro.drives.reject { |one| one.target.owner_id == owner_id && one.target.device_id == device_id }
      end

      # @return [Array<Array(Float, Hash)>] place and values, by place
      def self.settings(device, given)
        list = given.each_with_index.map do |one, i|
          Chains.values!(device.type_rules, one["values"], "/settings/#{i}/values")
          [one.fetch("place", i / (given.size - 1.0)).to_f, one["values"]]
        end
        return list if list.each_cons(2).all? { |one, other| one[0] < other[0] }

        raise InvalidInput.of("unsorted", "/settings", "Settings stand in order of their places, one to a place.")
      end

      # Of every parameter in which they differ.
      # @yieldreturn [Address]
      def self.drives(device, list)
        device.type_rules.parameters.each_value.select(&:automatable).filter_map do |parameter|
          values = list.map { |place, setting| [place, setting.fetch(parameter.id, parameter.default).to_f] }
          next if values.map(&:last).uniq.size == 1

          Drive.new(target: yield(parameter.id), stops: parameter.scale.steps ? stepped(values) : values)
        end
      end

      # Two values half way from one place to the next.
      def self.stepped(values)
        between = values.each_cons(2).flat_map do |(from, one), (to, other)|
          [[(from + to) / 2, one], [(from + to) / 2, other]]
        end
        [values.first, *between, values.last]
      end

      def self.drivers!(song, macro, drives, input)
        taken = drives.map(&:target).select do |target|
          song.directory.drivers(target).any? { |one| one.macro != macro }
        end
        return [] if taken.empty?

        names = taken.map { |target| song.parameter_name(target) }.join(", ")
        return [Notice.new("replaced", taken.map(&:to_s), "other macros drive #{names} no more")] if input[:replace]

        raise InvalidInput.of("already_driven", "/device", "Other macros drive #{names} already; they may be replaced.")
      end
      private_class_method :others, :settings, :drives, :stepped, :drivers!
    end
  end
end
