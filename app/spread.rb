# frozen_string_literal: true

# Has work on a long list done by several processes at once, each with the memory of this one. What comes back is
# copied.
module Spread
  # Shorter lists are not worth it.
  LEAST = 40

  class << self
    # @return [Integer] how many processes there may be; one does it all in this one
    attr_accessor :processes
  end
  self.processes = 1

  module_function

  # @param on_progress [#call, nil] hears the share that is done
  # @return [#call] takes a list, what is to be done with each of it, and (or nil) what is made of an answer here,
  #   with its place, while others are worked on; answers what came of it, in order
  def map(on_progress = nil)
    lambda do |list, work, made = nil|
      alone = list.size < LEAST || Spread.processes < 2
      alone ? plain(list, work, on_progress, made) : spread(list, work, on_progress, made)
    end
  end

  def plain(list, work, on_progress, made)
    list.each_with_index.map do |one, i|
      answer = work.call(one)
      on_progress&.call((i + 1) / list.size.to_f)
      made ? made.call(i, answer) : answer
    end
  end

  def spread(list, work, on_progress, made)
    pipes = (0...Spread.processes).map { |turn| child(list, work, turn) }
    found, done, open = Array.new(list.size), 0, pipes.map(&:first)
    until open.empty?
      IO.select(open)[0].each do |pipe|
        place, answer = Marshal.load(pipe) # rubocop:disable Security/MarshalLoad -- from a process of our own
        raise answer if answer.is_a?(Exception)

        found[place] = made ? made.call(place, answer) : answer
        done += 1
        on_progress&.call(done / list.size.to_f)
      rescue EOFError
        open.delete(pipe)
      end
    end
    raise "A process ended too early." if done < list.size

    found
  ensure
    pipes&.each { |pipe, pid| finish(pipe, pid) }
  end

  def child(list, work, turn)
    read, write = IO.pipe(binmode: true)
    pid = fork do
      read.close
      (turn...list.size).step(Spread.processes) { |place| Marshal.dump([place, work.call(list[place])], write) }
      write.close
      exit!(0)
    rescue StandardError => e
      Marshal.dump([0, portable(e)], write)
      exit!(1)
    end
    write.close
    [read, pid]
  end

  # What went wrong goes across as it is, with all that it says; what cannot, by its class and its words.
  def portable(error)
    Marshal.load(Marshal.dump(error))
    error
  rescue TypeError, ArgumentError
    RuntimeError.new("#{error.class}: #{error.message}")
  end

  def finish(pipe, pid)
    pipe.close
    Process.kill("KILL", pid)
    Process.wait(pid)
  rescue Errno::ESRCH, Errno::ECHILD
    nil
  end
  private_class_method :plain, :spread, :child, :portable, :finish
end
