# frozen_string_literal: true

# What kind of device a browser says it runs on.
module DeviceKind
  # By the first that its words hold; what is more particular comes first, as an Android phone says that it is Linux
  # too.
  KINDS = { /iPhone/ => "iPhone", /iPad/ => "iPad", /Android.*Mobile/ => "Android phone",
            /Android/ => "Android tablet", /CrOS/ => "Chromebook",
            /Windows/ => "Windows computer", /Macintosh|Mac OS X/ => "Mac", /Linux|X11/ => "Linux computer" }.freeze

  # @param agent [String, nil] the header User-Agent
  # @return [String]
  def self.of(agent) = KINDS.find { |pattern, _| pattern.match?(agent.to_s.scrub) }&.last || "a device"
end
