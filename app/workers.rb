# frozen_string_literal: true

require "open3"

# Processes for long work (see worker.rb). One stands ready, so that work need not wait for it to start; another takes its place when
# it is taken.
class Workers
  WORKER = File.expand_path("worker.rb", __dir__)
  # A worker needs little room for compiled code.
  RUBY = ["ruby", "--yjit", "--yjit-exec-mem-size=32"].freeze
  # Garbage is collected less often than in a server: a worker makes much that stays, and ends soon.
  ROOMY = { "RUBY_GC_HEAP_INIT_SLOTS" => "1500000", "RUBY_GC_MALLOC_LIMIT" => "67108864", "RUBY_GC_MALLOC_LIMIT_MAX" => "134217728",
            "RUBY_GC_OLDMALLOC_LIMIT" => "134217728" }.freeze

  # `input` takes lines, `output` gives them, `thread` ends with the process.
  Worker = Struct.new(:input, :output, :thread) do
    def pid = thread.pid

    def close
      [input, output].each { |pipe| pipe.close unless pipe.closed? }
      thread.value
    end
  end

  def initialize
    @lock = Mutex.new
    @ready = nil
  end

  # Lets a block have a worker of its own; it ends with the block.
  # @yieldparam worker [Worker]
  def take
    worker = @lock.synchronize { @ready.tap { @ready = nil } }
    worker&.close unless worker&.thread&.alive?
    worker = begun unless worker&.thread&.alive?
    warm
    yield worker
  ensure
    worker&.close
  end

  # Has a worker stand ready. It waits for its task, and ends when this process does.
  def warm = @lock.synchronize { @ready ||= begun }

  private

  def begun
    environment = { **ROOMY, "SATCHEL_DB" => Database.path, "RUBY_YJIT_ENABLE" => "1" }
    Worker.new(*Open3.popen2(environment, *RUBY, WORKER))
  end
end
