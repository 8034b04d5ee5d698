# frozen_string_literal: true

require "etc"
require "open3"
require_relative "turns"

# Processes for long work (see worker.rb). One stands ready, so that work need not wait for it to start; another takes
# its place when it is taken. Only so many are busy at a time that one core is left to answer.
class Workers
  WORKER = File.expand_path("worker.rb", __dir__)
  # A worker needs little room for compiled code.
  RUBY = ["ruby", "--yjit", "--yjit-exec-mem-size=32"].freeze
  # Garbage is collected less often than in a server: a worker makes much that stays, and ends soon.
  ROOMY = { "RUBY_GC_HEAP_INIT_SLOTS" => "1500000", "RUBY_GC_MALLOC_LIMIT" => "67108864",
            "RUBY_GC_MALLOC_LIMIT_MAX" => "134217728",
            "RUBY_GC_OLDMALLOC_LIMIT" => "134217728" }.freeze
  MOST_BUSY = [Etc.nprocessors - 1, 1].max
  # So many may wait for a place; each waits in a thread of the server.
  MOST_WAITING = 12
  # The most memory of one of its processes, in bytes of addresses.
  MOST_MEMORY = 4 * (1024**3)

  # Takes lines, gives lines, ends with its process.
  class Worker
    attr_reader :thread

    def initialize(environment)
      @input, @output, @thread = Open3.popen2(environment, *RUBY, WORKER, pgroup: true, rlimit_as: MOST_MEMORY)
      @text = +""
    end

    # @return [Integer] of the process
    def pid = @thread.pid
    def alive? = @thread.alive?

    # @param line [String] JSON for the worker; nothing where it has ended
    def say(line)
      @input.puts(line)
    rescue Errno::EPIPE
      nil # its answer, or that there is none, is heard below
    end

    # @param seconds [Numeric] to wait at most
    # @return [String, Symbol, nil] a line; :none so far; nil when there is no more
    def line(seconds)
      until @text.include?("\n")
        return :none unless @output.wait_readable(seconds)

        @text << @output.readpartial(65_536)
      end
      @text.slice!(/.*\n/)
    rescue EOFError
      nil
    end

    # Ends it, and what it began itself.
    def kill = Process.kill("KILL", -pid)

    # Ends the worker, at once where it goes on.
    def close
      [@input, @output].each { |pipe| pipe.close unless pipe.closed? }
      kill if alive? && !@thread.join(0.2)
    rescue Errno::ESRCH, Errno::EPIPE
      nil
    ensure
      @thread.value
    end
  end

  # @param most [Integer] processes that are busy at a time
  def initialize(most: MOST_BUSY)
    @turns = Turns.new(most, waiting: MOST_WAITING)
    @lock = Mutex.new
    @ready = nil
  end

  # Lets a block have a worker of its own; it ends with the block.
  # @param processes [Integer] it would split into
  # @param waits [#call] hears how many are before it
  # @yieldparam worker [Worker]
  # @yieldparam processes [Integer] it may split into
  # @raise [Turns::Full]
  def take(processes = 1, waits = ->(_) {})
    @turns.take(processes, waits) do |count|
      worker = taken
      warm
      yield worker, count
    ensure
      worker&.close
    end
  end

  # Has a worker stand ready. It waits for its task, and ends when this process does.
  def warm = @lock.synchronize { @ready ||= spawn }

  private

  def taken
    worker = @lock.synchronize { @ready.tap { @ready = nil } }
    return worker if worker&.alive?

    worker&.close
    spawn
  end

  def spawn = Worker.new({ **ROOMY, "SATCHEL_DB" => Database.path, "RUBY_YJIT_ENABLE" => "1" })
end
