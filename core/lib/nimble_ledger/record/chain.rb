# frozen_string_literal: true

require "openssl"

module NimbleLedger
  module Record
    # A shop's acts, chained (model.md section 14): each mac is HMAC-SHA256 of the one before and the entry's bytes, the
    # first with 64 zeros. Whoever has the key finds any change, insertion or removal; whoever holds a paper with an
    # earlier head contradicts a chain that was cut or written anew.
    #
    #   chain = Chain.new("1" => key)
    #   chain.mac("1", Chain::START, entry.bytes)  #=> "9c1f…"
    class Chain
      START = ("0" * 64).freeze
      SHORT = 12 # hex digits of a head on paper

      # One entry as it is kept.
      Link = Struct.new(:seq, :bytes, :mac, :key_id)

      # The first link that does not hold: its seq, and a code ("missing", "order", "key", "mac").
      Fault = Struct.new(:seq, :code)

      # @param keys [Hash{String=>String}] id to secret; old keys stay, so that old links can be checked
      def initialize(keys)
        @keys = keys
      end

      # @param previous [String] mac of the entry before, START for the first
      # @param bytes [String] of the entry
      # @return [String] 64 hex digits
      # @raise [KeyError] for a key that is not known
      def mac(key_id, previous, bytes)
        OpenSSL::HMAC.hexdigest("SHA256", @keys.fetch(key_id.to_s), previous + bytes)
      end

      # @param links [Enumerable<Link>] by seq
      # @return [Fault, nil] the first that does not hold, nil when all do
      def fault(links)
        previous = START
        links
          .each
          .with_index(1) do |link, seq|
            return Fault.new(seq, "missing") if link.seq > seq
            return Fault.new(link.seq, "order") unless link.seq == seq && link.bytes.include?("\"seq\":#{seq},")
            return Fault.new(seq, "key") unless @keys.key?(link.key_id.to_s)
            return Fault.new(seq, "mac") unless mac(link.key_id, previous, link.bytes) == link.mac

            previous = link.mac
          end
        nil
      end

      # What is printed of a chain's end: "412 9c1f0a77b3de".
      # @param link [Link, nil]
      def self.head(link) = link ? "#{link.seq} #{link.mac[0, SHORT]}" : "0 #{START[0, SHORT]}"
    end
  end
end
