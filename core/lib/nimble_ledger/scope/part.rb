# frozen_string_literal: true

module NimbleLedger
  module Scope
    # One part that may fail (model.md section 8): its kind, the targets that renew it, how far it has run, how its kind
    # lasts. renewed_with: targets that renew it beside its own (a boot comes new with its coil or wire).
    class Part
      KINDS = %w[coil boot wire plug].freeze

      attr_reader :kind, :cylinders, :targets, :age, :life

      # @param kind [String] one of KINDS
      # @param cylinders [Array<Integer>] it serves
      # @param targets [Array<Profile::Target>] its own, in file order
      # @param age [Numeric] km since it was fitted
      # @param life [WeibullLife]
      # @param renewed_with [Array<Profile::Target>]
      def initialize(kind, cylinders, targets, age:, life:, renewed_with: [])
        @kind = kind
        @cylinders = cylinders
        @targets = targets
        @age = age
        @life = life
        @renewed_with = renewed_with
        freeze
      end

      # @param scope [Array<Profile::Target>]
      def new_in?(scope) = scope.any? { |target| @targets.include?(target) || @renewed_with.include?(target) }

      def plug? = kind == "plug"
    end

    # A plug, with what its next change hangs on. interval_km and months: between changes (months nil where the profile
    # gives none); run_months: since the last.
    class Plug < Part
      attr_reader :interval_km, :months, :run_months, :fresh_life, :fresh_interval_km

      # @param fresh_interval_km [Numeric] of the plug that goes in
      # @param fresh_life [WeibullLife] of that
      def initialize(
        cylinders,
        targets,
        age:,
        life:,
        interval_km:,
        months:,
        run_months:,
        fresh_interval_km:,
        fresh_life:
      )
        @interval_km = interval_km
        @months = months
        @run_months = run_months
        @fresh_interval_km = fresh_interval_km
        @fresh_life = fresh_life
        super("plug", cylinders, targets, age: age, life: life)
      end
    end
  end
end
