# frozen_string_literal: true

module NimbleServer
  # One check of everything that is text in a request line or header, before anything takes it apart: UTF-8 without
  # control characters, also after percent signs are resolved; queries neither deep nor long.
  class PlainBytes
    LONGEST_QUERY = 2_000
    LONGEST_HEADER = 8_000
    CONTROL = /[\u0000-\u001F\u007F]/

    def initialize(app)
      @app = app
    end

    def call(env)
      found = fault(env)
      return @app.call(env) unless found

      [
        400,
        { "content-type" => "application/json" },
        [JSON.generate("error" => { "code" => "bad_bytes", "message" => "The #{found}.", "details" => [] })]
      ]
    end

    private

    def fault(env)
      return "address holds bytes that are not plain UTF-8 text" unless plain?(resolved(env["PATH_INFO"]))

      query_fault(env["QUERY_STRING"].to_s) || header_fault(env)
    end

    def query_fault(query)
      return "query is longer than #{LONGEST_QUERY} characters" if query.bytesize > LONGEST_QUERY
      return "query holds bytes that are not plain UTF-8 text" unless plain?(resolved(query.tr("+", " ")))

      "query is nested: names without brackets, please" if query.match?(/[\[\]]|%5b|%5d/i)
    end

    def header_fault(env)
      name, =
        env.find do |key, value|
          key.start_with?("HTTP_") && value.is_a?(String) && (value.bytesize > LONGEST_HEADER || !plain?(value))
        end
      name &&
        "header #{name.delete_prefix("HTTP_").tr("_", "-").downcase[0, 40]} is too long or holds bytes that are " \
          "not plain text"
    end

    def resolved(text) = text.to_s.b.gsub(/%(\h\h)/) { Regexp.last_match(1).hex.chr }

    def plain?(text) =
      text.dup.force_encoding(Encoding::UTF_8).then { |utf8| utf8.valid_encoding? && !utf8.match?(CONTROL) }
  end
end
