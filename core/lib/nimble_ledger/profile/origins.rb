# frozen_string_literal: true

module NimbleLedger
  module Profile
    # Where each figure of a profile comes from (model.md section 1): typed by somebody, taken over with a pattern,
    # spread from one figure as its kind does, learned from jobs. A figure that says nothing was typed.
    module Origins
      FROM = %w[typed pattern kind learned].freeze
      KEYS = { "steps" => %w[remove refit], "targets" => %w[minutes] }.freeze

      module_function

      # @param profile [Hash] changed in place
      # @param list [String] "steps" or "targets"
      # @param key [String] the figure: "remove", "refit" or "minutes"
      # @param from [String] one of FROM
      # @param jobs [Integer, nil] how many jobs it was learned from
      def note(profile, list, id, key, from, jobs: nil)
        place = address(list, id, key)
        return forget_one(profile, place) if from == "typed"

        (profile["origins"] ||= {})[place] = { "from" => from, "jobs" => jobs }.compact
      end

      # All of a step or target that is gone.
      def forget(profile, list, id) = KEYS.fetch(list).each { |key| forget_one(profile, address(list, id, key)) }

      # @return [Hash] {"from", "jobs"?}
      def of(profile, list, id, key) = profile.dig("origins", address(list, id, key)) || { "from" => "typed" }

      # How many figures come from where.
      # @return [Hash{String=>Integer}] every word of FROM
      def counts(profile)
        figures = KEYS.flat_map { |list, keys| profile[list].product(keys).map { |row, key| [list, row["id"], key] } }
        found = figures.map { |list, id, key| of(profile, list, id, key)["from"] }.tally
        FROM.to_h { |from| [from, found.fetch(from, 0)] }
      end

      def address(list, id, key) = "#{list}:#{id}:#{key}"

      def forget_one(profile, place)
        return unless profile["origins"]

        profile["origins"].delete(place)
        profile.delete("origins") if profile["origins"].empty?
      end
      private_class_method :address, :forget_one
    end
  end
end
