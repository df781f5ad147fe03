# frozen_string_literal: true

module NimbleLedger
  module Ledger
    # Effects of the quarter, the engine and the technician on the log ratio (model.md section 12, "Effects"): ridge
    # regression in closed form, one job after another by rank-one updates of the inverse, so that a backtest of
    # thousands of jobs costs little. The order of jobs does not matter to the result.
    #
    # Quarters that nobody finished a job in yet keep the level of the one before, with more variance: the same as if
    # they were not there.
    class Effects
      FIRST = 1.0
      DRIFT = 20.0
      OTHERS = 5.0

      # Places of a job's three ones in its row; nil for an engine or technician that is not among them.
      # beside: what an engine nobody has seen here starts from.
      Row =
        Struct.new(:quarter, :engine, :technician, :beside) do
          def places = @places ||= [quarter, engine, technician].compact.freeze
        end

      attr_reader :quarters, :engines, :technicians

      # @param quarters [Range] of quarter numbers
      # @param engines [Array<String>]
      # @param technicians [Array<String>]
      # @param starts [Hash{String=>Float}] engine to the effect other shops have found for it (model.md section 17)
      def initialize(quarters, engines, technicians, starts: {})
        @quarters = quarters
        @engines = engines
        @technicians = technicians
        @size = quarters.size + engines.size + technicians.size
        @at_engine = engines.each_with_index.to_h { |name, i| [name, quarters.size + i] }
        @at_technician = technicians.each_with_index.to_h { |name, i| [name, quarters.size + engines.size + i] }
        @inverse = prior
        @starts = starts
        @effects = Array.new(@size, 0.0)
        @at_engine.each { |name, place| @effects[place] = starts.fetch(name, 0.0) }
      end

      # @return [Row]
      def row(quarter, engine, technician)
        place = (quarter - @quarters.begin).clamp(0, [@quarters.size - 1, 0].max)
        Row.new(
          @quarters.none? ? nil : place,
          @at_engine[engine],
          @at_technician[technician],
          @at_engine.key?(engine) ? 0.0 : @starts.fetch(engine, 0.0)
        )
      end

      # Takes a job in.
      # @param row [Row]
      # @param log_ratio [Float]
      def add(row, log_ratio)
        places = row.places
        column = Array.new(@size) { |i| places.sum { |place| @inverse[i][place] } }
        leverage = places.sum { |place| column[place] }
        off = (log_ratio - fit(row)) / (1 + leverage)
        column.each_with_index do |value, i|
          @effects[i] += value * off
          share = value / (1 + leverage)
          @inverse[i] = @inverse[i].zip(column).map! { |held, other| held - (share * other) } unless share.zero?
        end
      end

      # What a job leaves over, squared, as if it had not been there, for jobs alike: Σ e²/(1 − h). Worked out for
      # hundreds of rows after each job of a backtest, so the three places are written out.
      # @param row [Row] with all three places
      # @param count [Integer] jobs of that row
      # @param sum [Float] of their log ratios
      # @param squares [Float]
      # @return [Float]
      def left_over(row, count, sum, squares)
        a, b, c = row.places
        first = @inverse[a]
        second = @inverse[b]
        fit = @effects[a] + @effects[b] + @effects[c]
        leverage = first[a] + second[b] + @inverse[c][c] + (2 * (first[b] + first[c] + second[c]))
        (squares - (2 * fit * sum) + (count * fit * fit)) / (1 - leverage)
      end

      # @return [Float] what the effects of a row come to
      def fit(row) = row.places.sum(row.beside) { |place| @effects[place] }

      # @return [Float] x(XᵀX+Λ)⁻¹xᵀ; an engine or technician nobody has seen adds its prior
      def leverage(row)
        places = row.places
        known = places.sum { |one| places.sum { |other| @inverse[one][other] } }
        unknown = [row.engine, row.technician].count(&:nil?)
        known + (unknown / OTHERS) + (row.quarter.nil? ? 1 / FIRST : 0.0)
      end

      def quarter_effects = @quarters.each_with_index.to_h { |number, i| [number, @effects[i]] }
      def engine_effects = @starts.merge(@at_engine.transform_values { |place| @effects[place] })
      def technician_effects = @at_technician.transform_values { |place| @effects[place] }

      private

      # The inverse of the penalties alone: a level that drifts from quarter to quarter, and effects around nothing.
      def prior
        count = @quarters.size
        Array.new(@size) do |i|
          Array.new(@size) do |k|
            if i < count && k < count
              (1 / FIRST) + ([i, k].min / DRIFT)
            else
              i == k ? 1 / OTHERS : 0.0
            end
          end
        end
      end
    end
  end
end
