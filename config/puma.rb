# frozen_string_literal: true

# One process, so that open songs are held in memory once; the tabs' event streams cost no thread.
require_relative "../app/startup"
Startup.check_port(ENV.fetch("BIND", "127.0.0.1"), ENV.fetch("PORT", "9292").to_i)
bind "tcp://#{ENV.fetch('BIND', '127.0.0.1')}:#{ENV.fetch('PORT', '9292')}"
threads 2, 8
workers 0
environment ENV.fetch("RACK_ENV", "production")
log_requests false
quiet

on_booted do
  id = Startup.stock
  puts "Kind Satchel is at http://#{ENV.fetch('BIND', '127.0.0.1')}:#{ENV.fetch('PORT', '9292')}#{id ? "/songs/#{id}" : '/'}  (Ctrl-C stops it)"
end
