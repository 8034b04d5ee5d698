# frozen_string_literal: true

# A move that somebody keeps: see KindSatchel::KeptMove.
class KeptMoveRow < ActiveRecord::Base
  self.table_name = "kept_moves"
end
