# frozen_string_literal: true

require "open3"
require "tempfile"

# Runs long work in a worker (see worker.rb): tells its progress on the event stream of a channel, and can be cancelled there.
class LongWork
  WORKER = File.expand_path("worker.rb", __dir__)
  # A worker needs little room for compiled code.
  RUBY = ["ruby", "--yjit", "--yjit-exec-mem-size=32"].freeze
  # Garbage is collected less often than in a server: a worker makes much that stays, and ends soon.
  ROOMY = { "RUBY_GC_HEAP_INIT_SLOTS" => "1500000", "RUBY_GC_MALLOC_LIMIT" => "67108864", "RUBY_GC_MALLOC_LIMIT_MAX" => "134217728",
            "RUBY_GC_OLDMALLOC_LIMIT" => "134217728" }.freeze
  # Songs with less text than this are worked on at once.
  LONG_BYTES = 1024 * 1024

  # Raised when somebody cancelled the work.
  class Cancelled < StandardError; end

  # Raised when a worker ended without an answer.
  class Failed < StandardError; end

  def initialize(listeners)
    @listeners = listeners
    @running = {}
    @lock = Mutex.new
  end

  # @param channel [String, nil] whoever asked listens there for "progress", and may {#cancel} by it
  # @param arguments [Hash] for the task
  # @return [Object] what the task answered
  # @raise [KindSatchel::InvalidInput], [Database::Trouble], [OpenSongs::Missing], [Cancelled], [Failed]
  def run(task, arguments, channel: nil)
    Open3.popen2(environment, *RUBY, WORKER, task, JSON.generate(arguments)) do |input, output, thread|
      running(channel, thread.pid) { answer(input, output, thread, channel) }
    end
  end

  # The same with a file for the worker to write to, or to read from.
  # @yieldparam path [String] the file, once the work is done
  def with_file(task, arguments, channel: nil, content: nil)
    Tempfile.create("satchel-work", binmode: true) do |file|
      file.write(content) if content
      file.flush
      done = run(task, arguments.merge("file" => file.path), channel:)
      block_given? ? yield(file.path) : done
    end
  end

  # @return [Boolean] whether there was work to cancel
  def cancel(channel)
    pid = @lock.synchronize { @running[channel]&.tap { @running[channel] = nil } }
    pid ? Process.kill("TERM", pid) == 1 : false
  rescue Errno::ESRCH
    false
  end

  private

  def environment = { **ROOMY, "SATCHEL_DB" => Database.path, "RUBY_YJIT_ENABLE" => "1" }

  def running(channel, pid)
    @lock.synchronize { @running[channel] = pid } if channel
    yield
  ensure
    @lock.synchronize { @running.delete(channel) }
  end

  def answer(input, output, thread, channel)
    last = lines(input, output, channel)
    return last["done"] if last&.key?("done")

    raise Cancelled if channel && @lock.synchronize { @running[channel].nil? }

    refuse(last || {}, thread.value)
  end

  # Each line as it comes; the writer's place is kept for the worker from its wish until it is done.
  def lines(input, output, channel)
    last = nil
    while (line = output.gets)
      last = JSON.parse(line)
      @listeners.tell(channel, "progress", last) if last.key?("progress")
      return Database.alone { lines(input.tap { |pipe| pipe.puts("go") }, output, channel) } if last.key?("ready")
    end
    last
  end

  def refuse(last, status)
    raise OpenSongs::Missing if last["gone"]
    raise Database::Trouble.new(*last["trouble"]) if last["trouble"]
    raise Failed, "A worker ended without an answer (#{status})." unless last["faults"]

    kind = last["missing"] ? KindSatchel::NotFound : KindSatchel::InvalidInput
    raise(kind, last["faults"].map { |fault| KindSatchel::Fault.new(*fault.values_at("code", "path", "message")) })
  end
end
