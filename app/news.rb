# frozen_string_literal: true

# What other tabs are told of a change: the changed parts, their drawings, and where what is heard may differ, so that
# they need not fetch the song again.
module News
  # More text than this is not sent; the tab then fetches what it shows.
  MOST_BYTES = 512 * 1024

  module_function

  # @param change [EditLog::Change]
  # @param tab [String, nil] the tab that made it
  # @param listening [KindSatchel::Listening] which tracks are muted and soloed, and whose moves rest
  # @return [Hash]
  def of(change, tab, listening)
    after = change.after
    answer = Answer.new(change.before.song, after.song, change.patch, change.side, {}, listening:)
    brief = { step: change.step, revision: after.revision, words: change.words, undo: after.undo, redo: after.redo,
              tab:, **answer.listened }
    full = brief.merge(change: answer.news)
    JSON.generate(full).bytesize > MOST_BYTES ? brief : full
  end
end
