# frozen_string_literal: true

# Small songs that showed a fault once, kept in fixtures/faults.
module Faults
  FOLDER = File.expand_path("../fixtures/faults", __dir__)

  module_function

  def read(name) = JSON.parse(File.read(File.join(FOLDER, "#{name}.json")))

  # @return [KindSatchel::Song]
  def song(name)
    record = read(name)
    record = record["song"] if record.key?("song")
    record = KindSatchel::Upgrade.document(record) if record["version"] < KindSatchel::Document::VERSION
    KindSatchel::Document.load(record)
  end
end
