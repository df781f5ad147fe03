# frozen_string_literal: true

require "json"

module NimbleLedger
  # Reads a JSON text from outside: refuses what is too large, not UTF-8, too deep, or not JSON at all,
  # before anything else looks at it.
  module Document
    MAX_BYTES = 4_000_000
    MAX_DEPTH = 40

    module_function

    # @param text [String] bytes as they arrived
    # @param what [String] how the message names the document ("request", "engine profile")
    # @return [Object] parsed JSON
    # @raise [InvalidInput] too_large, invalid_encoding or invalid_json
    def parse(text, what: "document", max_bytes: MAX_BYTES)
      refuse("too_large", "The #{what} is larger than #{max_bytes / 1_000_000} MB.") if text.bytesize > max_bytes
      text = text.dup.force_encoding(Encoding::UTF_8)
      refuse("invalid_encoding", "The #{what} is not UTF-8 text.") unless text.valid_encoding?
      JSON.parse(text.delete_prefix("\uFEFF"), max_nesting: MAX_DEPTH)
    rescue JSON::NestingError
      refuse("too_deep", "The #{what} is nested deeper than #{MAX_DEPTH} levels.")
    rescue JSON::ParserError => e
      refuse("invalid_json", "The #{what} is not valid JSON#{place(text, e)}.")
    end

    def refuse(code, message)
      raise InvalidInput.new(message, code: code, details: [{ "path" => "", "message" => message }])
    end

    # The parser names a line, or the text it stumbled over; either becomes a line number.
    def place(text, error)
      line = error.message[/at line (\d+)/, 1]
      return " (near line #{line})" if line

      rest = error.message[/unexpected token at '(.*)'?\z/m, 1].to_s.delete_suffix("'")
      at = rest.length > 3 ? text.rindex(rest) : nil
      at ? " (near line #{text[0, at].count("\n") + 1})" : ""
    end
  end
end
