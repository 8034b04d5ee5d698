# frozen_string_literal: true

# A part of one version or more.
class VersionPartRow < ActiveRecord::Base
  self.table_name = "version_parts"
  self.primary_key = "digest"
end
