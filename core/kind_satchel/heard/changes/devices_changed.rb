# frozen_string_literal: true

module KindSatchel
  module Heard
    class Changes
      # Which parameters of the devices of a chain may be heard otherwise.
      module DevicesChanged
        private

        def look_at_devices(owner_id, before, after)
          pairs(before, after) do |old, new|
            ids = old && new && old.type == new.type ? turned(old, new) : moved_ids(owner_id, (old || new).id)
            ids.each { |id| add(Address.new(owner_id:, device_id: (new || old).id, parameter_id: id), ALWAYS) }
            look_at_drives(old, new)
          end
        end

        # What is driven otherwise, or no more.
        def look_at_drives(old, new)
          was, is = [old, new].map { |device| device ? device.macros.flat_map(&:drives) : [] }
          return if was.equal?(is)

          ((was - is) | (is - was)).each { |drive| add(drive.target, ALWAYS) }
        end

        # Parameters whose knob, or the hand on it, is another.
        def turned(old, new)
          %i[values held].flat_map do |field|
            (old[field].keys | new[field].keys).reject { |id| old[field][id] == new[field][id] }
          end.uniq
        end

        # Of a device that comes, goes or is another: all that something acts on.
        def moved_ids(owner_id, device_id)
          envelopes = [@before, @after].flat_map { |song| song.directory.envelopes.each_value.map(&:envelope) }
          targets = envelopes.map(&:target).uniq
          targets.select { |target| target.owner_id == owner_id && target.device_id == device_id }.map(&:parameter_id)
        end
      end
    end
  end
end
