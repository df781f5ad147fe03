# frozen_string_literal: true

module NimbleLedger
  module Workshop
    # What steps and work of a kind take, by the engines a shop knows: what is typical, how far low and high stand from
    # likely, and what would be unlike the others (model.md section 1).
    #
    #   UsualTimes.new(profiles).points("manifold", "remove", 20)  #=> [14, 20, 32]
    class UsualTimes
      # Nouns that tell what a layer is, the first that occurs in its name.
      NOUNS = {
        "manifold" => %w[manifold plenum],
        "throttle" => %w[throttle],
        "tray" => %w[tray cowl wiper],
        "mount" => %w[mount mounts],
        "module" => %w[module],
        "harness" => %w[harness],
        "battery" => %w[battery],
        "rail" => %w[rail],
        "pipe" => %w[pipe duct snorkel],
        "hose" => %w[hose hoses],
        "box" => %w[box],
        "bracket" => %w[bracket brace],
        "coil" => %w[coil],
        "wire" => %w[wire],
        "plug" => %w[plug],
        "cap" => %w[cap neck],
        "cover" => %w[cover shield panel]
      }.freeze
      # Where nothing is known of a kind.
      PLAIN = { "remove" => [3, 5, 9], "refit" => [3, 5, 9], "minutes" => [4, 6, 10] }.freeze
      FEWEST = 3
      FAR = 1.5

      # Likely minutes of a kind that others take: least, most, how many; and what was typed.
      Unlike = Struct.new(:low, :high, :count, :minutes)

      # @param row [Hash] a step or a target
      # @return [String] the kind of a step by its name; of a target its work
      def self.of(row)
        return row["work"] if row["work"]

        words = row["label"].to_s.downcase.split(/[,(]/).first.to_s.scan(/[a-z]+/)
        NOUNS.find { |_kind, nouns| nouns.intersect?(words) }&.first || words.last.to_s
      end

      # @param profiles [Array<Hash>] sound profiles
      def initialize(profiles)
        @figures = Hash.new { |hash, key| hash[key] = [] }
        profiles.each do |profile|
          Profile::Origins::KEYS.each do |list, keys|
            profile[list].product(keys).each { |row, key| @figures[[UsualTimes.of(row), key]] << row[key] }
          end
        end
      end

      # @return [Array<Numeric>] low, likely, high that are usual for the kind
      def typical(kind, key)
        known = @figures.fetch([kind, key], [])
        return PLAIN.fetch(key) if known.empty?

        points(kind, key, half(median(known.map { |figure| figure[1] })))
      end

      # @param likely [Numeric] minutes
      # @return [Array<Numeric>] low, likely, high with the spread of the kind, to half minutes
      def points(kind, key, likely)
        low, high = spread(kind, key)
        [[half(likely * low), likely].min, likely, [half(likely * high), likely].max]
      end

      # @return [Unlike, nil] where a figure lies far from those of at least three others of its kind
      def unlike(kind, key, likely)
        others = @figures.fetch([kind, key], []).map { |figure| figure[1] }
        return nil if others.size < FEWEST
        return nil if likely.between?(others.min / FAR, others.max * FAR)

        Unlike.new(others.min, others.max, others.size, likely)
      end

      private

      # Low and high as shares of likely.
      def spread(kind, key)
        known = @figures.fetch([kind, key], [])
        known = @figures.values.flatten(1) if known.size < FEWEST
        known = known.select { |figure| figure[1].positive? }
        return 0.7, 1.6 if known.empty?

        [0, 2].map { |point| median(known.map { |figure| figure[point].fdiv(figure[1]) }) }
      end

      def median(values)
        sorted = values.sort
        (sorted[(sorted.size - 1) / 2] + sorted[sorted.size / 2]) / 2.0
      end

      def half(value) = (value * 2).round.then { |twice| twice.even? ? twice / 2 : twice / 2.0 }
    end
  end
end
