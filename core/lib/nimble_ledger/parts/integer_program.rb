# frozen_string_literal: true

module NimbleLedger
  module Parts
    # A small integer program: whole columns within bounds, rows within bounds, one objective after another, each kept
    # while the next is sought. Solved by HiGHS (gem highs), which is loaded when the first one is solved. No clock: the
    # search is bounded by nodes, and the same program has the same answer.
    #
    #   program = IntegerProgram.new
    #   x = program.column(0, 10)
    #   program.row({ x => 3 }, 7, nil)
    #   program.least({ x => 1 }).values[x]  #=> 3
    class IntegerProgram
      # There is no solver here.
      class Missing < Error
        def initialize
          super(
            "An order cannot be computed here: the gem highs is not installed. bin/start and bin/test install it.",
            code: "no_solver"
          )
        end
      end

      NODES = 60_000
      # Objectives are whole numbers: half a one apart is not apart.
      HALF = 0.5
      TOLERANCE = 1e-9

      # values: whole numbers by column; objective: theirs; proven: whether no other is less; gap: by how much one might
      # be, where it is not.
      Solution = Struct.new(:values, :objective, :proven, :gap)

      Row = Struct.new(:coefficients, :lower, :upper)
      private_constant :Row

      def initialize
        @uppers = []
        @lowers = []
        @rows = []
      end

      # @param lower [Integer]
      # @param upper [Integer]
      # @return [Integer] its place
      def column(lower, upper)
        @lowers << lower
        @uppers << upper
        @lowers.size - 1
      end

      # @param coefficients [Hash{Integer=>Integer}] by column
      # @param lower [Numeric, nil] nil: none
      # @param upper [Numeric, nil] nil: none
      def row(coefficients, lower, upper) = @rows << Row.new(coefficients, lower, upper)

      # @param objective [Hash{Integer=>Integer}] by column
      # @return [Solution, nil] nil where nothing fits
      def least(objective)
        return empty(objective) if @lowers.empty?

        solution = solve(objective) or return nil
        solution.objective = objective.sum { |place, cents| cents * solution.values[place] }
        solution.proven = false unless holds?(solution.values)
        solution
      end

      # From now on the objective stays as good as that.
      def keep(objective, value) = row(objective, nil, value + HALF)

      private

      def empty(objective) = Solution.new([], 0, objective.empty?, 0)

      # In whole numbers, as they are printed.
      def holds?(values)
        @rows.all? do |row|
          sum = row.coefficients.sum { |place, times| times * values[place] }
          (row.lower.nil? || sum >= row.lower) && (row.upper.nil? || sum <= row.upper)
        end
      end

      def solve(objective)
        model = model(objective)
        set(model)
        found = model.solve
        return nil if found[:status] == :infeasible

        values = found[:col_value].map(&:round)
        proven = found[:status] == :optimal
        Solution.new(values, nil, proven, proven ? 0 : gap(model, found[:obj_value]))
      end

      def highs
        require "highs"
        Highs
      rescue LoadError
        raise Missing
      end

      def model(objective)
        starts = [0]
        @rows.each { |row| starts << (starts.last + row.coefficients.size) }
        highs.mip(
          sense: :minimize,
          col_cost: @lowers.each_index.map { |place| objective.fetch(place, 0) },
          col_lower: @lowers,
          col_upper: @uppers,
          row_lower: @rows.map { |row| row.lower || -Float::INFINITY },
          row_upper: @rows.map { |row| row.upper || Float::INFINITY },
          a_format: :rowwise,
          a_start: starts[0..-2],
          a_index: @rows.flat_map { |row| row.coefficients.keys },
          a_value: @rows.flat_map { |row| row.coefficients.values },
          integrality: Array.new(@lowers.size, :integer)
        )
      end

      DOUBLES = {
        "mip_rel_gap" => 0.0,
        "mip_abs_gap" => HALF,
        "mip_feasibility_tolerance" => TOLERANCE,
        "primal_feasibility_tolerance" => TOLERANCE
      }.freeze

      def set(model)
        DOUBLES.each { |name, value| Highs::FFI.Highs_setDoubleOptionValue(model, +name, value) }
        Highs::FFI.Highs_setIntOptionValue(model, +"threads", 1)
        Highs::FFI.Highs_setIntOptionValue(model, +"mip_max_nodes", NODES)
      end

      # What the proven bound leaves open.
      def gap(model, value)
        unless Highs::FFI.respond_to?(:Highs_getDoubleInfoValue)
          Highs::FFI.extern("HighsInt Highs_getDoubleInfoValue(void* highs, char* info, double* value)")
        end
        bound = Highs::DoubleArray.new(1)
        Highs::FFI.Highs_getDoubleInfoValue(model, +"mip_dual_bound", bound)
        [(value - bound.to_a.first - 1e-6).ceil, 0].max
      end
    end
  end
end
