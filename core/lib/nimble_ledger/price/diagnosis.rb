# frozen_string_literal: true

module NimbleLedger
  module Price
    # Finding out, as work that is sold (model.md section 7): hours up to an agreed cap at the diagnosis rate. Where the
    # house credits it, it costs nothing beside a repair and is owed when the repair is declined.
    #
    #   Diagnosis.new(0.8, house: house).cents  #=> 11600
    class Diagnosis
      # An agreed cap, as requests carry it.
      SHAPE = Shape.object(required: { "hours" => Shape.number(above: 0, max: 99.9, unit: "hours") })

      # What finding out has taken: hours, what of them the repair pays for, and whether the cap is reached.
      Used = Struct.new(:hours, :credited_cents, :reached)

      attr_reader :hours

      # @param hours [Numeric] at most so many
      # @param house [House::Settings]
      def initialize(hours, house:)
        @hours = hours
        @house = house
        freeze
      end

      def rate_cents = @house["diagnosis_rate_cents"]

      # @return [Integer] cents before tax
      def cents = Money.round(ThreePoints.exact(hours) * rate_cents)

      # Whether the repair pays for it.
      def credited? = @house["diagnosis_credited"]

      # What has been used of it: at the cap one stops and calls.
      # @param minutes [Numeric]
      # @return [Used]
      def used(minutes)
        taken = ThreePoints.exact(minutes) / 60
        paid = [taken, ThreePoints.exact(hours)].min
        Used.new(taken.to_f, credited? ? Money.round(paid * rate_cents) : 0, taken >= ThreePoints.exact(hours))
      end

      # What is owed when the repair is declined: the hours with the taxes on labor.
      # @return [Integer] cents
      def owed_cents = cents + Tax.new(@house).added_cents(Hash.new(0).merge("labor" => cents))
    end
  end
end
