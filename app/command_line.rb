# frozen_string_literal: true

require "optparse"
require_relative "../core/kind_satchel"
require_relative "schemas"
require_relative "handing_over_commands"
require_relative "store_commands"

# The commands of bin/satchel: each takes a song document and prints to standard output.
class CommandLine
  include KindSatchel
  include HandingOverCommands
  include StoreCommands

  HELP = <<~TEXT
    satchel heard SONG.json ADDRESS --from TICK --to TICK --step TICKS
        CSV: tick,normalised,natural
    satchel explain SONG.json ADDRESS --at TICK
        why a value is what it is
    satchel flatten SONG.json ADDRESS [--tolerance X]
        CSV: seconds,value; straight ramps
    satchel clock SONG.json --at TICK
        seconds from the start
    satchel params SONG.json
        CSV: address,scale,unit,low,high,default
    satchel validate SONG.json
        every fault, or "valid"
    satchel check SONG.json
        its loose ends, a line each; exit 1 where there are any
    satchel edit SONG.json EDITS.json
        the next document; EDITS is [{"edit": NAME, "inputs": {...}}, ...]
    satchel pack SONG.json PACKED.zip
        the document with its sounds, from the app's store beside the database
    satchel unpack PACKED.zip
        the document of a packed song, its sounds put into that store
    satchel moves [MOVES.json]
        CSV: name,tags,role,beats; of the satchel, or of a file of moves
    satchel hand-over SONG.json CHOICES.json FOLDER
        writes what is chosen (schemas/hand_over.json) into a new folder
    satchel mixdown SONG.json GOAL.wav [--rate HZ] [--bits N]
        renders the song, or what lies --from TICK --to TICK, by a browser
    satchel compare SONG.json OTHER.json
        what differs, parameter by parameter; exit 1 where anything does
    satchel serve --read-only SONG.json [--port N]
        shows a song in the browser; it cannot be changed there
    satchel demo
        the demo song's document
  TEXT
  COMMANDS = %w[heard explain flatten clock params validate check edit pack unpack moves hand-over mixdown compare
                serve demo help].freeze
  # The most rows one command prints.
  MOST_ROWS = 5_000_000

  def initialize(arguments, out: $stdout, err: $stderr)
    @arguments = arguments
    @out = out
    @err = err
    @options = {}
  end

  # @return [Integer] 0, or 1 after one clear sentence on the error stream
  def run
    parser.parse!(@arguments)
    command = @options[:help] ? "help" : @arguments.shift || "help"
    unless COMMANDS.include?(command)
      return complain("There is no command #{command}; there is #{COMMANDS.join(', ')}.")
    end

    send(command.tr("-", "_"))
    @found_some ? 1 : 0
  rescue InvalidInput => e
    complain(e.faults.join("\n"))
  rescue OptionParser::ParseError => e
    complain("#{e.message.capitalize}.")
  rescue Errno::EPIPE
    0
  rescue SystemCallError => e
    complain("#{e.message.sub(/ @ \S+/, '')}.")
  end

  private

  def parser
    OptionParser.new do |options|
      %i[from to step at].each { |name| options.on("--#{name} TICK", Integer) { |value| @options[name] = value } }
      options.on("-h", "--help") { @options[:help] = true }
      options.on("--read-only") { @options[:read_only] = true }
      %i[rate bits port].each { |name| options.on("--#{name} N", Integer) { |value| @options[name] = value } }
      options.on("--tolerance X", Float) { |value| @options[:tolerance] = value }
    end
  end

  def complain(sentence)
    @err.puts sentence
    1
  end

  def help = @out.puts(HELP)

  def demo
    require_relative "../db/demo_song"
    print_song(DemoSong.build)
  end

  def heard
    resolver = Heard::Resolver.new(song, address)
    from, to = tick(:from), tick(:to)
    raise InvalidInput.of("out_of_range", "", "--to lies before --from.") if to < from

    ticks = from.step(to, tick(:step, 1))
    raise InvalidInput.of("too_many", "", "That is more than #{MOST_ROWS} rows.") if ticks.size > MOST_ROWS

    rows(%w[tick normalised natural], ticks.zip(resolver.at_each(ticks.to_a)).map do |at, value|
      [at, value, natural(resolver.scale, value)]
    end)
  end

  def explain = @out.puts(Heard::Explanation.new(song, address, tick(:at)).lines)

  def flatten
    tolerance = @options.fetch(:tolerance, Heard::Ramps::TOLERANCE)
    ramps = Heard::Ramps.new(Heard::Resolver.new(song, address), tolerance:)
    rows(%w[seconds value], ramps.corners(0, song.length_ticks))
  end

  def clock = @out.puts(song.tempo.seconds_at(tick(:at)))

  def params
    list = song.tracks.flat_map { |track| song.parameters_of(track) }
    rows(%w[address scale unit low high default], list.map do |at, parameter|
      scale = parameter.scale
      [at, scale.id, scale.unit.word, natural(scale, 0.0), natural(scale, 1.0), parameter.text(parameter.default)]
    end)
  end

  def validate
    song
    @out.puts "valid"
  end

  def check
    ends = Checks::LooseEnds.open(song, outside)
    ends.each { |one| @out.puts "#{one.rules.title}: #{one.tell(song).text}" }
    @found_some = ends.any?
  end

  # The first beside the second.
  def compare
    found = HandOver::Comparison.new(song, Schemas.read_song(read(argument("OTHER.json"))).song)
    rows = found.rows
    rows.each { |row| @out.puts compared(row.to_record(song)) }
    found.others("the second").each { |words| @out.puts words }
    @found_some = rows.any? || found.others.any?
  end

  def compared(row)
    return "#{row['name']}: the same is heard, made otherwise" if row["largest"].zero?

    "#{row['name']}: at most #{row['largest_text']} apart, at #{row['position']}; #{row['mean_text']} on average"
  end

  def edit
    start = song
    edits = Schemas.parse(read(argument("EDITS.json")))
    unless edits.is_a?(Array) && edits.all?(Hash)
      raise InvalidInput.of("bad_edits", "", "EDITS.json holds a list of edits.")
    end

    print_song(edits.each_with_index.reduce(start) do |current, (entry, i)|
      InvalidInput.under("/#{i}") do
        Schemas.check_edit!(entry["edit"], entry["inputs"])
        Edits.apply(current, entry["edit"], with_levels(current, entry)).song
      end
    end)
  end

  def print_song(result) = @out.puts(JSON.pretty_generate(Document.dump(result)))

  def song = @song ||= Schemas.read_song(read(argument("SONG.json"))).song
  def address = @address ||= song && Address.parse(argument("ADDRESS"))

  def argument(name)
    @arguments.shift or raise InvalidInput.of("missing_argument", "", "#{name} is missing; see `satchel help`.")
  end

  def read(path) = path == "-" ? $stdin.read : File.read(path, encoding: "UTF-8")

  def tick(name, minimum = 0)
    value = @options.fetch(name) do
      raise InvalidInput.of("missing_argument", "", "--#{name} is missing; see `satchel help`.")
    end
    return value if value.between?(minimum, Timing::LAST_TICK)

    raise InvalidInput.of("out_of_range", "", "--#{name} lies outside #{minimum} to #{Timing::LAST_TICK}.")
  end

  # Natural values are written with as many digits as a float has; silence is -inf.
  def natural(scale, value)
    number = scale.natural(value)
    number == -Float::INFINITY ? "-inf" : number
  end

  def rows(header, list)
    @out.puts header.join(",")
    list.each { |row| @out.puts row.join(",") }
  end
end
