# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # Engines that one technician alone works on, who works on nothing else: which of the two is slow, nobody can tell,
    # and both share it (model.md section 12, "Effects").
    module ConfoundedEffects
      # Two that cannot be told apart.
      Pair = Struct.new(:engine, :technician)

      module_function

      # @param pairs [Array<Array(String, String)>] engine and technician of every job
      # @return [Array<Pair>] by engine
      def of(pairs)
        hands = pairs.group_by(&:first).transform_values { |rows| rows.map(&:last).uniq }
        engines = pairs.group_by(&:last).transform_values { |rows| rows.map(&:first).uniq }
        hands
          .select { |engine, names| names.one? && engines.fetch(names.first) == [engine] }
          .map { |engine, names| Pair.new(engine, names.first) }
          .sort_by(&:engine)
      end
    end
  end
end
