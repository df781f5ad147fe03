# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # A pool request (formats.md): the shares of several shops, answered with what a shop of them starts from.
    class PoolRequest
      FORMAT = "nimble-ledger.pool-request"
      # What an effect may be, as a logarithm.
      LOG = Shape.number(min: -5, max: 5)
      sum = Shape.number(max: 10_000_000)
      seen = { "plugs" => Shape.integer(max: 10_000_000), "broken_sum" => sum, "whole_sum" => sum }
      soaks = Shape.map(Shape.object(required: seen), max: Profile::SOAKS.size)
      SHARES =
        Shape.object(
          required: {
            "engines" =>
              Shape.map(
                Shape.object(required: { "jobs" => Shape.integer(min: 1, max: 10_000_000), "mean_log" => LOG }),
                max: 5_000
              ),
            "outcomes" =>
              Shape.object(
                required: {
                  "broken" => Shape.map(Shape.object(required: { **seen, "soaks" => soaks }), max: 20),
                  "thread" => Shape.object(required: seen),
                  "stubborn" => Shape.object(required: seen)
                }
              )
          }
        )
      # What a history may start from, as the answer has it.
      OUTCOMES = Risk::LearnedOdds.shape(1_000_000)
      SHAPE =
        Shape.object(
          required: {
            "format" => Shape.const(FORMAT),
            "version" => Shape.const(1),
            "shops" =>
              Shape.list(Shape.object(required: { "id" => Shape.string(max: 120), "shares" => SHARES }), max: 1_000)
          },
          optional: {
            "for" => Shape.string(max: 120)
          }
        )

      # @param hash [Hash] parsed JSON
      # @raise [InvalidInput] with the path of every fault
      def self.build(hash, base: House::Settings.defaults, **)
        SHAPE.check!(hash, what: "request", code: "invalid_request")
        new(hash, base)
      end

      # Constructions and soaks that nobody knows.
      # @param broken [Hash] by construction, with "soaks"
      # @raise [InvalidInput]
      def self.refuse_unknown(broken, path)
        broken.each do |name, row|
          here = "#{path}/#{Shape.key(name)}"
          unless Risk::History::CONSTRUCTIONS.include?(name)
            raise InvalidInput.at(here, "is no construction; known are #{Risk::History::CONSTRUCTIONS.join(", ")}")
          end
          unknown = row["soaks"].keys - Profile::SOAKS
          next if unknown.empty?

          place = "#{here}/soaks/#{Shape.key(unknown.first)}"
          raise InvalidInput.at(place, "is no soak; known are #{Profile::SOAKS.join(", ")}")
        end
      end

      def initialize(hash, house)
        @house = house
        @shops = hash["shops"]
        @for = hash["for"]
        refuse
        freeze
      end

      # @return [Hash] see formats.md
      def answer(**)
        pool = Pool.new(@shops.reject { |shop| shop["id"] == @for }.map { |shop| shop["shares"] }, @house)
        {
          "format" => "nimble-ledger.pool",
          "version" => 1,
          "engines" =>
            pool.engines.transform_values do |one|
              { "mean_log" => one.mean_log, "jobs" => one.jobs, "shops" => one.shops }
            end,
          "outcomes" => pool.outcomes
        }
      end

      private

      def refuse
        seen = {}
        @shops.each_with_index do |shop, i|
          raise InvalidInput.at("/shops/#{i}/id", "is there already (#{shop["id"]})") if seen[shop["id"]]

          seen[shop["id"]] = true
          outcomes = shop["shares"]["outcomes"]
          path = "/shops/#{i}/shares/outcomes"
          PoolRequest.refuse_unknown(outcomes["broken"], "#{path}/broken")
          each_row(outcomes, path) { |row, place| refuse_sums(row, place) }
        end
        return if @for.nil? || seen[@for]

        raise InvalidInput.at("/for", "#{@for} is not among the shops")
      end

      def each_row(outcomes, path)
        outcomes["broken"].each do |name, row|
          here = "#{path}/broken/#{Shape.key(name)}"
          yield row, here
          row["soaks"].each { |soak, same| yield same, "#{here}/soaks/#{Shape.key(soak)}" }
        end
        %w[thread stubborn].each { |name| yield outcomes[name], "#{path}/#{name}" }
      end

      def refuse_sums(row, path)
        return if row["broken_sum"] + row["whole_sum"] <= row["plugs"] + 1e-9

        raise InvalidInput.at(path, "has sums above its #{row["plugs"]} plugs")
      end
    end
  end
end
