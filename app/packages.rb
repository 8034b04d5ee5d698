# frozen_string_literal: true

# Where the gems of the app are, for programs that are started from a plain shell, in any folder: those that
# `bin/demo` installs. What such a program starts finds them too.
module Packages
  ROOT = File.expand_path("..", __dir__)

  ENV["BUNDLE_GEMFILE"] ||= File.join(ROOT, "Gemfile")
  ENV["BUNDLE_PATH"] ||= File.join(ROOT, "vendor/bundle")

  # By path, which takes less time than by Bundler.
  def self.at_hand
    bundle = File.expand_path(ENV.fetch("BUNDLE_PATH"), ROOT)
    Gem.use_paths(Gem.dir, [*Dir[File.join(bundle, "ruby", "*")], *Gem.path])
  end
end
