# frozen_string_literal: true

# A song on the shelf. `revision` grows with every change; `done_edits` of the logged edits are in force, those
# after them were undone.
class SongRow < ActiveRecord::Base
  self.table_name = "songs"

  has_many :parts, class_name: "PartRow", foreign_key: :song_id, inverse_of: false
  has_many :edits, class_name: "EditRow", foreign_key: :song_id, inverse_of: false

  scope :on_shelf, -> { where(deleted_at: nil) }
  scope :in_bin, -> { where.not(deleted_at: nil) }

  # @return [Float, nil] the peak in dBFS of the mixdown that was made of a revision
  def self.peak_db(id, revision) = where(id:, mixdown_revision: revision).pick(:mixdown_peak_db)
end
