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
    # @param order_of_work [Boolean] whether pieces stand in section 15's order
    # @param one_frailty [Boolean] whether plugs of one car share a factor before the job as they do during it
    # @param one_interval [Boolean] whether the overdue ratio takes section 10's interval
    # @param used_parts_as_singles [Boolean] whether each used part of a kit sells like a single
    def initialize(
      number,
      battery_in_plan: true,
      order_of_work: false,
      one_frailty: false,
      one_interval: false,
      used_parts_as_singles: false
    )
      @number = number
      @battery_in_plan = battery_in_plan
      @order_of_work = order_of_work
      @one_frailty = one_frailty
      @one_interval = one_interval
      @used_parts_as_singles = used_parts_as_singles
      freeze
    end
    private_class_method :new

    def battery_in_plan? = @battery_in_plan
    def order_of_work? = @order_of_work
    def one_frailty? = @one_frailty
    def one_interval? = @one_interval
    def used_parts_as_singles? = @used_parts_as_singles

    KNOWN =
      [
        new(1, battery_in_plan: false),
        new(2),
        new(3, order_of_work: true, one_frailty: true, one_interval: true, used_parts_as_singles: true)
      ].to_h { |rules| [rules.number, rules] }.freeze
    # What a request that names none is computed by.
    NEWEST = KNOWN.fetch(3)

    # @return [Rules]
    # @raise [KeyError] for a number nobody computes by
    def self.[](number) = KNOWN.fetch(number)
  end
end
