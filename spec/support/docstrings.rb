# frozen_string_literal: true

require "yard"

# The docstrings of core and app, read as an engineer would.
module Docstrings
  ROOT = File.expand_path("../..", __dir__)
  # What is answered because a contract asks for it is described there, once: by the contract, who keeps to it.
  CONTRACTS = {
    "core/kind_satchel/curve/shapes.rb" => %r{/curve/shapes/},
    "core/kind_satchel/curve/shapes/smooth.rb" => %r{/curve/shapes/},
    "core/kind_satchel/parameter/scale.rb" => %r{/parameter/scales?[/.]},
    "core/kind_satchel/parameter/units.rb" => %r{/parameter/units},
    "core/kind_satchel/song/roles.rb" => %r{/song/roles/},
    "core/kind_satchel/song/clocks.rb" => %r{/song/clocks},
    "core/kind_satchel/song/sources.rb" => %r{/song/sources/},
    "core/kind_satchel/song/owners.rb" => %r{/song/owners/},
    "core/kind_satchel/checks/loose_ends.rb" => %r{/checks/ends/},
    "core/kind_satchel/heard/evaluate/arcs.rb" => %r{/heard/evaluate/},
    "core/kind_satchel/heard/evaluate/integral/stretches.rb" => %r{/heard/(evaluate/|song_clock)},
    "core/kind_satchel/hand_over/control_events.rb" => %r{/hand_over/control_events},
    "core/kind_satchel/value.rb" => %r{/core/},
    "core/kind_satchel/edits.rb" => %r{/edits/},
    "app/server.rb" => %r{/app/routes/}
  }.freeze

  module_function

  def all
    @all ||= begin
      YARD::Logger.instance.level = YARD::Logger::FATAL
      YARD::Registry.clear
      YARD.parse(Dir["#{ROOT}/{core,app}/**/*.rb"])
      YARD::Registry.all
    end
  end

  # Public methods that are written out in a file.
  def methods = all.select { |one| one.type == :method && one.visibility == :public && one.file && !one.is_attribute? }
  def bare = methods.select { |one| one.docstring.blank? && !promised?(one) }

  def promised?(method)
    CONTRACTS.any? { |file, kept| method.file.match?(kept) && promises(file).include?(method.name.to_s) }
  end

  # The names a contract's own comments tell, as `name` or `name(inputs)`.
  def promises(file)
    @promises ||= {}
    @promises[file] ||= File.read("#{ROOT}/#{file}").scan(/^ *#.*$/).join("\n").scan(/`(\w+[?!]?)(?:\(.*?\))?`/).flatten
  end

  # @return [Array] of each example: what it belongs to, and its text
  def examples = all.flat_map { |one| one.docstring.tags(:example).map { |tag| [one, tag.text] } }

  # Each line with what it says comes out, nil where it says nothing.
  # @return [Array<Array(String, String)>]
  def statements(text) = text.lines.map { |line| line.chomp.split(/\s*# ?=> /, 2) }

  # A binding in which names mean what they mean around the object.
  def inside(object)
    object.namespace.path.split("::").reduce(TOPLEVEL_BINDING.dup) do |place, name|
      place.eval("#{name}.module_eval('binding')") # KindSatchel.module_eval('binding')
    end
  end
end
