# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Recorded sounds that are not there.
      module MissingSounds
        module_function

        def title = "A sound that is missing"
        def meaning = "What plays it stays silent until a sound with that content comes in again."

        def outside? = true

        def find(song, outside)
          missing = outside.missing_sounds or return []
          song.sounds.select { |sound| missing.include?(sound) }.map { |sound| [sound] }
        end

        def tell(song, sound)
          clips = song.clips.each_value.select { |clip| clip.audio&.sound == sound }
          owners = song.chains.select { |owner| owner.devices.any? { |device| device.sound == sound } }
          names = (clips + owners).map(&:name).uniq
          short = sound.size > 12 ? "#{sound[0, 12]}…" : sound
          End.new("#{names.join(', ')} #{names.size == 1 ? 'plays' : 'play'} #{short}, which is not there.",
                  place(clips[0] || owners[0]), [])
        end

        def place(owner) = owner.is_a?(Clip) ? { "clip_id" => owner.id } : { "track_id" => owner.id }
        private_class_method :place
      end
    end
  end
end
