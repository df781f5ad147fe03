# frozen_string_literal: true

require "time"

module NimbleLedger
  # Learning from what happened (model.md section 12).
  module Ledger
    # A finished job as the ledger holds it (model.md section 12): what was promised before any correction, and what it
    # took.
    #
    # mean, variance: of the estimate, minutes; actual, trouble: hands-on minutes; spread: s²; own_spread: ln(1+u).
    class FinishedJob
      # A task with its estimate and what it took, minutes.
      Task = Struct.new(:name, :estimate, :actual)
      # A plug with its chances and what came of it.
      Plug = Struct.new(:construction, :soak, :broken, :thread, :stubborn, :outcome)

      FIGURES = %w[mean_minutes actual_minutes trouble_minutes quoted_hours].freeze
      private_constant :FIGURES

      attr_reader :id,
                  :finished,
                  :engine,
                  :technician,
                  :mean,
                  :variance,
                  :actual,
                  :trouble,
                  :quoted_hours,
                  :reference_hours,
                  :tasks,
                  :plugs,
                  :spread,
                  :own_spread

      # @param hash [Hash] fitting History::JOB
      # @param house [House::Settings]
      def initialize(hash, house)
        @id, @engine, @technician = hash.values_at("id", "engine", "technician")
        @finished = ::Time.iso8601(hash["finished"])
        @mean, @actual, @trouble, @quoted_hours = FIGURES.map { |key| hash[key].to_f }
        @variance = hash["sd_minutes"].to_f**2
        @reference_hours = hash["reference_hours"]&.to_f
        @tasks = (hash["tasks"] || []).map { |task| read_task(task) }
        @plugs = (hash["plugs"] || []).map { |plug| read_plug(plug) }
        @spread = Time::Correction.spread(@mean, @variance)
        @own_spread = Time::Correction.own(@spread, hash["common_variation"] || house["common_variation"])
        freeze
      end

      # Minutes without what fought back.
      def plain = actual - trouble

      # Log ratio of what it took and what was estimated; 0 on average where the estimate's mean is right.
      def log_ratio = Math.log(plain / mean) + (spread / 2)

      # @return [Integer] quarters since year 0, UTC
      def quarter = Ledger.quarter(finished)
      def month = finished.getutc.strftime("%Y-%m")

      # Hours it took beyond the quoted ones.
      def hours_lost = (plain / 60) - quoted_hours

      # @return [Float] minutes not exceeded with probability p, as it was estimated
      def estimated(p) = Math.exp(Math.log(mean) - (spread / 2) + (Math.sqrt(spread) * Time::Normal.quantile(p)))

      private

      def read_task(hash) = Task.new(hash["task"], hash["estimate"].to_f, hash["actual"].to_f)

      def read_plug(hash)
        chances = hash["predicted"].values_at("broken", "thread", "stubborn")
        Plug.new(hash["construction"], hash["soak"], *chances, hash["outcome"])
      end
    end

    module_function

    # @return [Integer] quarters since year 0, UTC
    def quarter(time) = time.getutc.then { |at| (at.year * 4) + ((at.month - 1) / 3) }

    # @return [String] "2026-Q3"
    def quarter_name(number) = "#{number / 4}-Q#{(number % 4) + 1}"
  end
end
