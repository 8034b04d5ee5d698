# frozen_string_literal: true

module KindSatchel
  module Edits
    # Hands knobs that are held by hand back to what moves them: some, or all of the song.
    module HandBack
      def self.call(song, input)
        addresses = if input.key?(:addresses)
                      input[:addresses].map.with_index { |text, i| held!(song, text, "/addresses/#{i}") }
                    else
                      song.held
                    end
        raise InvalidInput.of("nothing_held", "", "No knob is held by hand.") if addresses.empty?

        [Perform::HandBack.call(song, addresses),
         "hand back #{addresses.size == 1 ? song.parameter(addresses.first).name : "#{addresses.size} knobs"}"]
      end

      def self.held!(song, text, path)
        InvalidInput.under(path) do
          address = Address.parse(text)
          next address if song.parameter(address) && song.held?(address)

          raise InvalidInput.of("nothing_held", "", "#{song.parameter(address).name} is not held by hand.")
        end
      end
      private_class_method :held!
    end
  end
end
