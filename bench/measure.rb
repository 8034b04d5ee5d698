# frozen_string_literal: true

# Times blocks; quotes medians and 95th percentiles, since machines are shared.
module Measure
  module_function

  # @return [Hash] milliseconds: median, p95, runs
  def milliseconds(runs, warm_up: 3, &block)
    warm_up.times(&block)
    GC.start
    times = Array.new(runs) do
      start = now
      yield
      (now - start) * 1000
    end
    summary(times)
  end

  def summary(times)
    sorted = times.sort
    { "median_ms" => sorted[sorted.size / 2].round(2), "p95_ms" => sorted[(sorted.size * 0.95).floor].round(2), "runs" => sorted.size }
  end

  def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
end
