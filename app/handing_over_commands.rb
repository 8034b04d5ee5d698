# frozen_string_literal: true

require "English"
require "etc"
require "socket"
require_relative "packages"

# The commands of bin/satchel that hand a song over.
module HandingOverCommands
  RATES = [44_100, 48_000, 96_000].freeze
  DEPTHS = [16, 24, 32].freeze

  private

  # All of it, or no folder at all.
  def hand_over
    start = song
    choices = Schemas.parse(read(argument("CHOICES.json")))
    goal = argument("FOLDER")
    raise KindSatchel::InvalidInput.of("in_the_way", "", "#{goal} is there already.") if File.exist?(goal)

    load_app
    Spread.processes = Etc.nprocessors
    Schemas.check!("hand_over", choices)
    chosen = HandOverChoices.new(start, choices)
    files = ->(store) { HandOverFiles.to_folder(chosen, goal, store) { |share, words| progress(share, words) } }
    # Only a packed song has its sounds in it.
    found = chosen["packed"] ? with_store(&files) : files.call(nil)
    found["losses"].each do |loss|
      @out.puts [loss["name"], loss["points"] || "as it is", loss["largest_text"], loss["mean_text"]].join(", ")
    end
    found["notes"].each { |note| @err.puts note }
  end

  # By a browser without a window, in a process of its own.
  def mixdown
    path, goal = argument("SONG.json"), argument("GOAL.wav")
    rate, bits = @options.fetch(:rate, 48_000), @options.fetch(:bits, 24)
    raise KindSatchel::InvalidInput.of("in_the_way", "", "#{goal} is there already.") if File.exist?(goal)
    unless rates?(rate,
                  bits)
      raise KindSatchel::InvalidInput.of("out_of_range", "",
                                         "--rate is one of #{RATES.join(', ')}, --bits one of #{DEPTHS.join(', ')}.")
    end

    Schemas.read_song(read(path))
    options = { song: File.expand_path(path), goal: File.expand_path(goal), rate:, bits:, from_tick: @options[:from],
                to_tick: @options[:to],
                store: "#{store_path}-sounds" }.compact
    answer = IO.popen([RbConfig.ruby, "--yjit", File.expand_path("mixdown.rb", __dir__), JSON.generate(options)],
                      &:read)
    return @found_some = true unless $CHILD_STATUS.success?

    JSON.parse(answer).each { |name, value| @out.puts "#{name} #{value&.round(2) || '-inf'}" }
  end

  # By a server of its own, for as long as nobody stops it.
  def serve
    unless @options[:read_only]
      raise KindSatchel::InvalidInput.of("missing_argument", "",
                                         "--read-only is missing: a document is only shown; bin/demo serves songs to " \
                                         "work on.")
    end

    path, port = argument("SONG.json"), free_port(@options.fetch(:port, 0))
    Schemas.read_song(read(path))
    options = { song: File.expand_path(path), port:, store: "#{store_path}-sounds" }
    exec(RbConfig.ruby, "--yjit", File.expand_path("show.rb", __dir__), JSON.generate(options))
  end

  # @raise [KindSatchel::InvalidInput]
  def free_port(port)
    raise KindSatchel::InvalidInput.of("out_of_range", "", "--port is a number from 0 to 65535.") unless port.between?(
      0, 65_535
    )

    TCPServer.open("127.0.0.1", port, &:close)
    port
  rescue Errno::EADDRINUSE
    raise KindSatchel::InvalidInput.of("taken_port", "", "Port #{port} is taken; name another one with --port.")
  end

  def rates?(rate, bits) = RATES.include?(rate) && DEPTHS.include?(bits)
  def progress(share, words) = @err.tty? && @err.print("\r#{words} #{(share * 100).round} %  ")
end
