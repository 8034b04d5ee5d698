# frozen_string_literal: true

module KindSatchel
  # A loose end that is meant to be so: which check found it, its key there, and why.
  class SetAside < Value.of(:check_id, :key, :reason)
    # The most of one song.
    MOST = 2000
    MOST_REASON = 200

    def check
      [["/check", check_id, 40], ["/key", key, 400]].each do |path, text, most|
        next if text.is_a?(String) && text.size.between?(1, most)

        fault!("bad_name", path, "This is a text of 1 to #{most} characters.")
      end
      return if reason.is_a?(String) && reason.size <= MOST_REASON

      fault!("bad_reason", "/reason", "A reason has at most #{MOST_REASON} characters.")
    end
  end
end
