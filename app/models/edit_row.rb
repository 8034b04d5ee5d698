# frozen_string_literal: true

# One edit in a song's log, in place 1, 2, 3, ...: what was asked, the words for undo, and the patch both ways.
class EditRow < ActiveRecord::Base
  self.table_name = "edits"
end
