# frozen_string_literal: true

require "socket"
require_relative "local_authority"
require_relative "sweep"

# What can go wrong before the server serves: told in one sentence, with exit status 1.
module Startup
  module_function

  # @raise [SystemExit] when the port is taken or may not be used
  def check_port(host, port)
    TCPServer.new(host, port).close
  rescue Errno::EADDRINUSE
    refuse("Port #{port} of #{host} is taken; stop what uses it, or name another one in PORT.")
  rescue SystemCallError, SocketError => e
    refuse("The server cannot listen on #{host}, port #{port} (#{e.message.sub(/ - .*/, '')}).")
  end

  # A certificate for what the machine is called beyond itself.
  # @return [LocalAuthority]
  # @raise [SystemExit] when it cannot be made, or the web server cannot use one
  def certificate(database, address)
    unless Puma.ssl?
      refuse("This Ruby's web server was built without OpenSSL, so nothing beyond this machine can be served.")
    end

    names = Addresses.reached(address) + ENV.fetch("SATCHEL_HOSTS", "").split(",") + %w[127.0.0.1 localhost]
    LocalAuthority.new("#{File.expand_path(database)}-tls").ready(names.uniq)
  rescue SystemCallError => e
    refuse("The certificate cannot be written (#{e.message.sub(/ @ .*/, '')}).")
  end

  # @raise [SystemExit] when the database cannot be used
  def connect(path)
    Database.connect(path)
  rescue Database::Refused => e
    refuse(e.message)
  end

  # Puts on the shelf what ships: the sounds, and the demo song. A worker for long work stands ready too.
  # @return [Integer, nil] the id of the demo song, nil when there are songs already
  def stock
    Sweep.close(Database.path)
    Sweep.call(Server.sounds)
    Server.sounds.take_shipped(Server.shipped_sounds)
    Server.sounds.spoilt.each do |row|
      warn "The sound #{row.name} (#{row.digest[0, 12]}) is not what it was: it is told as missing."
    end
    Server.long_work.warm
    Server.workspaces.clear(0)
    DemoSeed.plant
  end

  def refuse(sentence)
    warn sentence
    exit!(1)
  end
  private_class_method :refuse
end
