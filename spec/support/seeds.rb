# frozen_string_literal: true

# The seeds of the random specs: the same ones in every run, so that a run that passes passes again.
#   SEED=12 bin/test spec/core     begins with another one
#   SEEDS=500 bin/test spec/core   tries more of them
#   bin/test long                  tries as many as are asked for, beginning with another one each time
module Seeds
  module_function

  # @param count [Integer] how many where nothing else is asked for
  # @param long [Integer] how many in the long run
  # @return [Array<Integer>]
  def list(count, long: count * 10)
    count = long if ENV["SATCHEL_LONG"]
    first = ENV.fetch("SEED", "1").to_i
    (first...(first + ENV.fetch("SEEDS", count.to_s).to_i)).to_a
  end
end
