# frozen_string_literal: true

# Settings of devices and chains under names, for all songs: a good set that ships, and what people keep.
class PresetShelf
  LONGEST_NAME = 120

  # Raised for a preset that is not there.
  class Missing < StandardError; end

  # @param file [String] of the set that ships: values as people write them
  def initialize(file)
    @file = file
  end

  # @return [Array<Hash>] the shipped ones first, then what was kept, by name
  def list = shipped + Database.guarded { PresetRow.order(:name, :id).map(&:entry) }

  # Keeps a setting; of a name that is taken it takes the place.
  # @param device [String, nil] the type of a device, nil for a chain
  # @param devices [Array<Hash>] "type", "values"
  # @return [Hash] the entry
  # @raise [KindSatchel::InvalidInput] for a blank name, or devices that cannot be
  def keep(name, device, devices)
    check!(name, device, devices)
    chain = JSON.generate(devices.map do |entry|
      { "type" => entry["type"], "values" => entry.fetch("values", {}), **entry.slice("sound", "macros") }
    end)
    Database.write do
      row = PresetRow.find_or_initialize_by(device:, name: name.strip)
      row.update!(chain:)
      row.entry
    end
  end

  # @raise [Missing]
  def remove(id)
    Database.write { (PresetRow.find_by(id:) or raise Missing).destroy! }
  end

  private

  def shipped
    @shipped ||= JSON.parse(File.read(@file)).each_with_index.map do |entry, i|
      devices = entry["devices"].map { |device| { "type" => device["type"], "values" => parsed(device) } }
      { "id" => -1 - i, "name" => entry["name"], "device" => entry["device"], "devices" => devices, "shipped" => true }
    end
  end

  def parsed(device)
    type = KindSatchel::Devices::TYPES.fetch(device["type"])
    device.fetch("values", {}).to_h { |id, text| [id, type.parameter(id).scale.parse(text)] }
  end

  def check!(name, device, devices)
    unless name.is_a?(String) && name.strip.size.between?(
      1, LONGEST_NAME
    )
      wrong!("bad_name", "/name",
             "A preset's name has 1 to #{LONGEST_NAME} characters.")
    end
    fits = devices.is_a?(Array) && devices.size.between?(1, KindSatchel::Chain::MOST_DEVICES - 1) && devices.all?(Hash)
    wrong!("bad_chain", "/devices", "A preset holds 1 to #{KindSatchel::Chain::MOST_DEVICES - 1} devices.") unless fits
    unless device.nil? || devices.map do |entry|
      entry["type"]
    end == [device]
      wrong!("bad_chain", "/device",
             "A preset of a device holds just that device.")
    end
    devices.each_with_index { |entry, i| check_device!(entry, "/devices/#{i}") }
  end

  def check_device!(entry, path)
    type = KindSatchel::InvalidInput.under("#{path}/type") { KindSatchel::Devices::TYPES.fetch(entry["type"].to_s) }
    values = entry.fetch("values", {})
    wrong!("bad_chain", "#{path}/values", "Values are an object, by parameter.") unless values.is_a?(Hash)
    KindSatchel::Edits::Chains.values!(type, values, "#{path}/values")
    unless entry["sound"].nil? || entry["sound"].is_a?(String)
      wrong!("bad_chain", "#{path}/sound",
             "A sound is named by a text.")
    end
    check_macros!(entry["macros"], "#{path}/macros") if entry.key?("macros")
  end

  def check_macros!(macros, path)
    KindSatchel::InvalidInput.under(path) { Schemas.check!("macros", macros) }
    KindSatchel::Records.each(macros, path) { |one| KindSatchel::Records.read_macro(one) }
  end

  def wrong!(code, path, message) = raise(KindSatchel::InvalidInput.of(code, path, message))
end
