# frozen_string_literal: true

# What the server writes is read by its owner alone.
File.umask(0o077)

# One process, so that open songs are held in memory once; the tabs' event streams cost no thread.
require_relative "../app/startup"
require_relative "../app/addresses"
address, port = ENV.fetch("BIND", "127.0.0.1"), ENV.fetch("PORT", "9292").to_i
beyond = Addresses.beyond?(address)
home = beyond ? "127.0.0.1" : address
Startup.check_port(home, port)
bind "tcp://#{home}:#{port}"

# Beyond this machine everything is spoken in secret, by a certificate for the addresses of now.
if beyond
  tls_port = (ENV["TLS_PORT"] ||= (port + 1).to_s).to_i
  Startup.check_port(address, tls_port)
  tls = Startup.certificate(ENV.fetch("SATCHEL_DB", File.expand_path("../db/satchel.sqlite3", __dir__)), address)
  ssl_bind address, tls_port.to_s, { key: tls.key_file, cert: tls.certificate_file, verify_mode: "none" }
end
threads 2, 24
workers 0
# The largest that is sent; see app/doorkeeper.rb for who may send how much.
http_content_length_limit 1024 * 1024 * 1024
environment ENV.fetch("RACK_ENV", "production")
log_requests false
quiet

on_booted do
  id = Startup.stock
  puts "Kind Satchel is at http://#{home}:#{port}#{id ? "/songs/#{id}" : '/'}  (Ctrl-C stops it)"
  reached = beyond ? Addresses.reached(address) : []
  reached.each { |one| puts "For phones with a key (Add a phone): https://#{one}:#{tls_port}" }
end
