# frozen_string_literal: true

source "https://rubygems.org"

gem "activerecord", "~> 7.2.2"
gem "ferrum", "~> 0.15" # drives the browser that renders sound for the command line
gem "json_schemer", "~> 2.3"
gem "kramdown-parser-gfm", "~> 1.1" # the guide as pages
gem "midilib", "~> 4.0"
gem "puma", "~> 6.5"
gem "rqrcode", "~> 3.1"
gem "rubyzip", "~> 2.4"
gem "sinatra", "~> 4.1"
gem "sqlite3", "1.7.3" # newest with a prebuilt binary for this Ruby
gem "wavefile", "~> 1.1"
gem "websocket-driver", "~> 0.8"

group :test do
  gem "capybara", "~> 3.40"
  gem "cuprite", "~> 0.15"
  gem "nokogiri", "1.16.8" # newest with a prebuilt binary for this Ruby
  gem "rack-test", "~> 2.1"
  gem "rspec", "~> 3.13"
  gem "rubocop", "~> 1.69"
  gem "turbo_tests", "~> 2.2"
  gem "yard", "~> 0.9" # reads the docstrings, for their specs
end
