# frozen_string_literal: true

require "tempfile"
require_relative "asker"
require_relative "workers"

# Runs long work in a worker (see worker.rb): tells its progress on the event stream of whoever asked, who can cancel
# it there. It ends when nobody waits for it any more, or when it takes too long.
class LongWork
  # Songs with less text than this are worked on at once.
  LONG_BYTES = 1024 * 1024
  # The longest that work may take once it has begun.
  MOST_SECONDS = Hash.new(300).merge!("baking" => 1800, "hand_over" => 1800).freeze
  # What splits, and into how many processes at most.
  SPLITS = Hash.new(1).merge!("baking" => 2, "hand_over" => 2).freeze
  # How often it is looked whether anybody still waits.
  LOOK_SECONDS = 0.5

  # Raised when somebody cancelled the work.
  class Cancelled < StandardError; end

  # Raised when a worker ended without an answer, with a sentence that says why.
  class Failed < StandardError; end

  # @param workers [Workers]
  def initialize(listeners, workers = Workers.new)
    @listeners = listeners
    @workers = workers
    @running = {}
    @lock = Mutex.new
  end

  # @param asker [Asker]
  # @param arguments [Hash] for the task
  # @return [Object] what the task answered
  # @raise [KindSatchel::InvalidInput], [Database::Trouble], [OpenSongs::Missing], [Cancelled], [Failed],
  #   [Turns::Full], [Asker::Left]
  def run(task, arguments, asker: Asker.new)
    last_told = nil
    waits = lambda do |before|
      asker.there!
      tell(asker, "progress" => 0, "words" => "waiting: #{before} before it") unless last_told == before
      last_told = before
    end
    @workers.take(SPLITS[task], waits) do |worker, processes|
      worker.say(JSON.generate([task, arguments, processes]))
      running(asker, worker.pid) { answer(worker, asker, task) }
    end
  end

  # Has a worker stand ready for the first work.
  def warm = @workers.warm

  # The same with a file for the worker to write to, or to read from.
  # @yieldparam path [String] the file, once the work is done
  def with_file(task, arguments, asker: Asker.new, content: nil)
    Tempfile.create("satchel-work", binmode: true) do |file|
      file.write(content) if content
      file.flush
      done = run(task, arguments.merge("file" => file.path), asker:)
      block_given? ? yield(file.path) : done
    end
  end

  # @param token [String] of an {Asker}
  # @return [Boolean] whether there was work to cancel
  def cancel(token)
    pid = @lock.synchronize { @running[token]&.tap { @running[token] = nil } }
    pid ? Process.kill("TERM", pid) == 1 : false
  rescue Errno::ESRCH
    false
  end

  private

  def tell(asker, data) = (@listeners.tell(asker.token, "progress", data) if asker.token)

  def running(asker, pid)
    @lock.synchronize { @running[asker.token] = pid } if asker.token
    yield
  ensure
    @lock.synchronize { @running.delete(asker.token) }
  end

  def cancelled?(asker) = asker.token && @lock.synchronize { @running[asker.token].nil? }

  def answer(worker, asker, task)
    begun = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    last = lines(worker, asker, begun + MOST_SECONDS[task])
    return last["done"] if last&.key?("done")
    raise Cancelled if cancelled?(asker)

    worker.close
    refuse(last || {}, worker.thread.value, task, Process.clock_gettime(Process::CLOCK_MONOTONIC) - begun)
  rescue Asker::Left, Failed => e
    warn "work #{task} (process #{worker.pid}): #{e.is_a?(Failed) ? e.message : 'nobody waits for it; ended'}"
    worker.kill if worker.alive?
    raise
  end

  # Each line as it comes; the writer's place is kept for the worker from its wish until it is done.
  def lines(worker, asker, finish)
    last = nil
    while (line = worker.line(LOOK_SECONDS))
      kept!(asker, finish)
      next if line == :none

      last = JSON.parse(line)
      tell(asker, last) if last.key?("progress")
      return Database.alone { lines(worker.tap { worker.say("go") }, asker, finish) } if last.key?("ready")
    end
    last
  end

  def kept!(asker, finish)
    asker.there!
    raise Failed, "It took too long, and was ended" if Process.clock_gettime(Process::CLOCK_MONOTONIC) > finish
  end

  def refuse(last, status, task, seconds)
    raise OpenSongs::Missing if last["gone"]
    raise Database::Trouble.new(*last["trouble"]) if last["trouble"]

    unless last["faults"]
      why = status.signaled? ? "ended by signal #{status.termsig}" : "it ended with #{status.exitstatus}"
      raise Failed, "Its process ended before it was done (#{task}, #{why} after #{seconds.round(1)} s)"
    end

    kind = last["missing"] ? KindSatchel::NotFound : KindSatchel::InvalidInput
    raise(kind, last["faults"].map { |fault| KindSatchel::Fault.new(*fault.values_at("code", "path", "message")) })
  end
end
