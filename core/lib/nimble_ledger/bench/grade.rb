# frozen_string_literal: true

module NimbleLedger
  module Bench
    # Which plug costs least over the distance it lasts, with the labor of this access (model.md section 10): the one
    # the engine names, and those the price list calls its equivalents and says how long they last.
    class Grade
      # part; grade; life: km; cents: parts and labor of one change; per_1000_km: cents.
      Row = Struct.new(:part, :grade, :life, :cents) { def per_1000_km = cents * 1000.0 / life }

      # @param job [Job] of a car with a catalog
      def initialize(job)
        @job = job
        @engine = job.car.engine
        @catalog = job.car.catalog
        freeze
      end

      # @return [Array<Row>] the cheapest over its life first; none unless there are two to choose from
      def rows
        return [] if @catalog.nil? || plugs.zero?

        found = parts.filter_map { |part| row(part) }.sort_by { |one| [one.per_1000_km, one.part] }
        found.size > 1 ? found : []
      end

      private

      def named = @engine.plug("part")
      def parts = Parts::PlugChoice.new(@catalog).parts(named)
      def targets = @job.targets.select { |target| target.plug? && target.plug_part.nil? }
      def plugs = targets.sum(&:plugs)

      # The plugs as a job of their own: what is done beside them would be done with either.
      def labor
        alone = targets.size == @job.targets.size ? @job : @job.another_day(targets)
        Money.round(Rational(alone.quoted_tenths * @job.car.house["rate_cents"], 10))
      end

      def row(part)
        about = (@catalog.item(part) || {})["plug"] || {}
        price = @job.selling_price(part)
        life = about["interval_km"] || (part == named ? @engine.plug("interval_km") : nil)
        grade = about["grade"] || (part == named ? @engine.plug("grade") : nil)
        Row.new(part, grade, life, labor + (price * plugs)) if price && life && grade
      end
    end
  end
end
