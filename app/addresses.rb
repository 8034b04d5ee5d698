# frozen_string_literal: true

require "socket"

# Where this machine is found on its network.
module Addresses
  LOOPBACK = ["127.0.0.1", "::1", "localhost"].freeze

  module_function

  # @return [Array<String>] IPv4 addresses beyond the machine itself, as they are now
  def now
    Socket.ip_address_list.select do |one|
      one.ipv4? && !one.ipv4_loopback? && !one.ipv4_multicast?
    end.map(&:ip_address).uniq
  end

  # @param bind [String]
  # @return [Boolean] whether others on the network reach what is bound there
  def beyond?(bind) = !LOOPBACK.include?(bind) && !bind.start_with?("127.")

  # @return [Array<String>] by which the machine is reached from beyond it
  def reached(bind) = ["0.0.0.0", "::"].include?(bind) ? now : [bind]
end
