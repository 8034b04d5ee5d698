# frozen_string_literal: true

module KindSatchel
  module Edits
    # Adds notes to a clip. One that begins while another of its pitch sounds ends that one.
    module AddNotes
      def self.call(song, input)
        clip = Noting.clip!(song, input)
        notes = Records.each(input[:notes], "/notes") { |record| Records.read_note(record) }
        [Noting.with_notes(song, clip, clip.notes, notes), "add #{PlainText.count(notes.size, 'note')} to #{clip.name}"]
      end
    end
  end
end
