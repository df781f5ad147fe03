# frozen_string_literal: true

module NimbleLedger
  module Record
    # One act of a shop's record (model.md section 14): who did what to what, when. Its bytes are canonical JSON of
    # strings, whole numbers, booleans, lists and objects; nothing else may stand in it.
    #
    #   entry = Entry.new(seq: 1, at: "2026-11-26T09:00:00.000000Z", actor: { "kind" => "system", "id" => "demo" },
    #                     kind: "revision-saved", subject: "quote 1001, revision 1", body: { "total_cents" => 67_028 })
    #   entry.bytes  #=> '{"actor":{"id":"demo",...},"seq":1,...}'
    class Entry
      MEMBERS = %w[seq at actor kind subject body].freeze

      # A value that has no place in the record.
      class Refused < StandardError
      end

      attr_reader :seq

      # @param seq [Integer] from 1 without gaps
      # @param at [String] RFC 3339 in UTC
      # @param actor [Hash] kind, id and name of who did it
      # @param kind [String] of the act
      # @param subject [String] what it was done to
      # @param body [Hash]
      # @raise [Refused] for a fraction, null or anything else that is not one of the kinds above
      def initialize(seq:, at:, actor:, kind:, subject:, body:)
        @seq = seq
        @document = MEMBERS.zip([seq, at, actor, kind, subject, body]).to_h
        look(@document, "")
        freeze
      end

      # @return [String] UTF-8, what is sealed
      def bytes = Canonical.json(@document)

      private

      def look(value, path)
        case value
        when Hash
          value.each { |key, member| look(member, "#{path}/#{key}") }
        when Array
          value.each_with_index { |member, i| look(member, "#{path}/#{i}") }
        when String, Integer, true, false
          nil
        else
          raise Refused,
                "#{path} is #{value.inspect}: the record holds text, whole numbers, booleans, lists and objects"
        end
      end
    end
  end
end
