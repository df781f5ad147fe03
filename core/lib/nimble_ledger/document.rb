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
      JSON
        .parse(text.delete_prefix("\uFEFF"), max_nesting: MAX_DEPTH)
        .tap { |value| refuse_null_characters(value, what) if text.include?('\\u0000') }
    rescue JSON::NestingError
      refuse("too_deep", "The #{what} is nested deeper than #{MAX_DEPTH} levels.")
    rescue JSON::ParserError => e
      refuse("invalid_json", "The #{what} is not valid JSON#{place(text, e)}.")
    end

    def refuse(code, message)
      raise InvalidInput.new(message, code: code, details: [{ "path" => "", "message" => message }])
    end

    # Text with the character 0 in it can be kept nowhere.
    def refuse_null_characters(value, what)
      path = null_character(value, "") or return
      raise InvalidInput.new(
              "The #{what} holds the character 0 at #{path.empty? ? "its top" : path}.",
              code: "invalid_encoding",
              details: [{ "path" => path, "message" => "holds the character 0" }]
            )
    end

    # @return [String, nil] where the first one stands
    def null_character(value, path)
      case value
      when String
        path if value.include?("\0")
      when Array
        value.each_with_index.lazy.filter_map { |member, i| null_character(member, "#{path}/#{i}") }.first
      when Hash
        value
          .lazy
          .filter_map { |key, member| key.include?("\0") ? path : null_character(member, "#{path}/#{key}") }
          .first
      end
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
