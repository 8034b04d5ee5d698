# frozen_string_literal: true

module KindSatchel
  # Text that people give, as one line that reads as it is: without controls, line breaks, and what turns the
  # direction of writing around.
  module PlainText
    # Controls, line and paragraph separators, and the embeddings, overrides and isolates of direction (Unicode
    # Standard Annex 9).
    HIDDEN = /[\p{Cc}\u2028\u2029\u200E\u200F\u061C\u202A-\u202E\u2066-\u2069]/

    # @example
    #   PlainText.line("two\nlines") #=> "two lines"
    # @param text [Object] anything that is no text is given back as it is
    # @return [Object]
    def self.line(text)
      return text unless text.is_a?(String) && text.valid_encoding? && HIDDEN.match?(text)

      text.gsub(/[ \r\n\t\u2028\u2029]*[\r\n\t\u2028\u2029]+[ \r\n\t\u2028\u2029]*/, " ").gsub(HIDDEN, "")
    end

    # @example
    #   PlainText.count(3, "point") #=> "3 points"
    # @return [String] "a point", "3 points"
    def self.count(number, word) = number == 1 ? "a #{word}" : "#{number} #{word}s"

    # A text that people gave, as a cell of comma-separated values (RFC 4180): what a spreadsheet would work out as a
    # formula is shown as text by an apostrophe before it (common practice, no source).
    # @example
    #   PlainText.cell("=1+1") #=> "'=1+1"
    # @param text [String]
    # @return [String]
    def self.cell(text) = quoted(text.match?(/\A[=+\-@\t\r]/) ? "'#{text}" : text)

    # The same for texts of our own, numbers with their units among them.
    def self.quoted(text) = text.match?(/[",\r\n]/) ? "\"#{text.gsub('"', '""')}\"" : text
  end
end
