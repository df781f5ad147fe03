# frozen_string_literal: true

module NimbleServer
  module Features
    module Record
      # The secrets the record is chained with. They are kept outside the database, one line each: "1 3f9a…". The last
      # one is in use; earlier ones stay, so that what they sealed can be checked (docs/server.md, "The record").
      class Keys
        VARIABLE = "RECORD_KEYS"

        # @param text [String] lines of id and secret
        # @raise [ArgumentError] when there is none
        def initialize(text)
          @secrets = text.to_s.lines.map(&:split).select { |words| words.size == 2 }.to_h
          raise ArgumentError, "#{VARIABLE} holds no key: lines like \"1 3f9a…\" are expected" if @secrets.empty?
        end

        # Those of this process.
        def self.current = @current ||= new(ENV.fetch(VARIABLE))

        # @return [Array<String>] ids, the one in use last
        def ids = @secrets.keys

        # @return [String] id of the one in use
        def newest = @secrets.keys.last

        # @return [NimbleLedger::Record::Chain]
        def chain = NimbleLedger::Record::Chain.new(@secrets)
      end
    end
  end
end
