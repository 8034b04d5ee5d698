# frozen_string_literal: true

# The seeds of the random specs: the same ones in every run, so that a run that passes passes again.
#   SEED=12 bin/test spec/core     begins with another one
#   SEEDS=500 bin/test spec/core   tries more of them
module Seeds
  module_function

  # @param count [Integer] how many where nothing else is asked for
  # @return [Array<Integer>]
  def list(count)
    first = ENV.fetch("SEED", "1").to_i
    (first...(first + ENV.fetch("SEEDS", count.to_s).to_i)).to_a
  end
end
