# frozen_string_literal: true

require "tempfile"
require_relative "workers"

# Runs long work in a worker (see worker.rb): tells its progress on the event stream of a channel, and can be cancelled there.
class LongWork
  # Songs with less text than this are worked on at once.
  LONG_BYTES = 1024 * 1024

  # Raised when somebody cancelled the work.
  class Cancelled < StandardError; end

  # Raised when a worker ended without an answer.
  class Failed < StandardError; end

  def initialize(listeners)
    @listeners = listeners
    @workers = Workers.new
    @running = {}
    @lock = Mutex.new
  end

  # @param channel [String, nil] whoever asked listens there for "progress", and may {#cancel} by it
  # @param arguments [Hash] for the task
  # @return [Object] what the task answered
  # @raise [KindSatchel::InvalidInput], [Database::Trouble], [OpenSongs::Missing], [Cancelled], [Failed]
  def run(task, arguments, channel: nil)
    @workers.take do |worker|
      worker.input.puts JSON.generate([task, arguments])
      running(channel, worker.pid) { answer(worker, channel) }
    end
  end

  # Has a worker stand ready for the first work.
  def warm = @workers.warm

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

  def running(channel, pid)
    @lock.synchronize { @running[channel] = pid } if channel
    yield
  ensure
    @lock.synchronize { @running.delete(channel) }
  end

  def answer(worker, channel)
    last = lines(worker.input, worker.output, channel)
    return last["done"] if last&.key?("done")

    raise Cancelled if channel && @lock.synchronize { @running[channel].nil? }

    refuse(last || {}, worker.thread.value)
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
