# frozen_string_literal: true

module NimbleLedger
  # The arithmetic by its number (model.md sections 2, 7 and 13). A stored revision keeps its number and computes by it
  # for ever; a request that names none takes the newest.
  #
  #   Rules[1].battery_in_plan?  #=> false
  class Rules
    attr_reader :number

    # @param number [Integer]
    # @param battery_in_plan [Boolean] whether the house task "battery off and on" is part of a plan's cost
    def initialize(number, battery_in_plan:)
      @number = number
      @battery_in_plan = battery_in_plan
      freeze
    end
    private_class_method :new

    def battery_in_plan? = @battery_in_plan

    KNOWN =
      [new(1, battery_in_plan: false), new(2, battery_in_plan: true)].to_h { |rules| [rules.number, rules] }.freeze
    NEWEST = KNOWN.values.last

    # @return [Rules]
    # @raise [KeyError] for a number nobody computes by
    def self.[](number) = KNOWN.fetch(number)
  end
end
