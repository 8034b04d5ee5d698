# frozen_string_literal: true

# Lets only so much be done at a time; the rest waits in order.
class Turns
  # Raised for one more than may wait.
  class Full < StandardError; end

  PAUSE_SECONDS = 0.25

  # @param most [Integer] at a time
  # @param waiting [Integer] how many may wait
  def initialize(most, waiting:)
    @most, @most_waiting = most, waiting
    @busy = 0
    @queue = []
    @lock = Mutex.new
    @changed = ConditionVariable.new
  end

  attr_reader :most

  # @param count [Integer] of the places at once, up to all
  # @param waits [#call] hears how many are before it, now and again while it waits; what it raises ends the waiting
  # @raise [Full]
  def take(count, waits)
    count = [count, @most].min
    come(count, waits)
    begin
      yield count
    ensure
      @lock.synchronize { @busy -= count }
      @changed.broadcast
    end
  end

  private

  def come(count, waits)
    mine = Object.new
    @lock.synchronize { @queue.size < @most_waiting ? @queue << mine : raise(Full) }
    until (before = passed(mine, count)).nil?
      waits.call(before)
      @lock.synchronize { @changed.wait(@lock, PAUSE_SECONDS) unless first?(mine, count) }
    end
  rescue StandardError
    @lock.synchronize { @queue.delete(mine) }
    @changed.broadcast
    raise
  end

  # @return [Integer, nil] how many are before it; nil once it has its place
  def passed(mine, count)
    @lock.synchronize do
      return @queue.index(mine) + @busy unless first?(mine, count)

      @queue.shift
      @busy += count
      nil
    end
  end

  def first?(mine, count) = @queue.first.equal?(mine) && @busy + count <= @most
end
