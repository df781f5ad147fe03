# frozen_string_literal: true

module NimbleLedger
  # A car as the core computes with it, the one parameter object: its engine as it is built (variants answered), the
  # house in force, what is known of its state and past, what the shop has, and what the advisor fixed. Requests of
  # every format only parse into it.
  #
  #   car = Car.new(engine: engine, equipment: ["two-post-lift"])
  #   car.job([engine.target("plug-5")]).plan.steps
  class Car
    MEMBERS = %i[engine house condition history equipment pins catalog rules warranty correction odds plug_notes].freeze

    attr_reader(*MEMBERS)

    # @param engine [Profile::Engine]
    # @param house [House::Settings] resolved for this engine and job
    # @param condition [Time::Condition, nil] nil for a car without rust, baked connectors or earlier bodges
    # @param history [Risk::History, nil] nil where nothing is known: then there is no risk section
    # @param equipment [Array<String>] what the shop has
    # @param pins [Access::Pins, nil] ways and members the advisor fixed
    # @param catalog [Parts::Catalog, nil] nil where there are no prices
    # @param rules [Rules]
    # @param warranty [Array<String>] targets the shop owes: what it fitted there is still under its warranty
    # @param correction [Time::Correction, nil] what was learned of its hours, where that is in force
    # @param odds [Risk::LearnedOdds, nil] what was learned of plugs
    # @param plug_notes [Bench::PlugNotes, nil] what holds for its plugs whatever the profile says
    # @param planner [Access::Planner, nil] of a car alike, when there is one already
    def initialize(
      engine:,
      house: House::Settings.defaults,
      condition: nil,
      history: nil,
      equipment: [],
      pins: nil,
      catalog: nil,
      rules: Rules::NEWEST,
      warranty: [],
      correction: nil,
      odds: nil,
      plug_notes: nil,
      planner: nil
    )
      @engine = engine
      @house = house
      @condition = condition || Time::Condition.new(nil, house)
      @history = history
      @equipment = equipment.uniq
      @pins = pins || Access::Pins.new(engine, nil)
      @catalog = catalog
      @rules = rules
      @warranty = warranty
      @correction = correction
      @odds = odds
      @plug_notes = plug_notes
      @planner = planner
    end

    # The same car with something else.
    # @return [Car]
    def with(**changes) = Car.new(**MEMBERS.to_h { |name| [name, public_send(name)] }, **changes)

    # The car as it is estimated, nothing of what was learned in it (model.md section 12).
    # @return [Car]
    def uncorrected = correction || odds ? with(correction: nil, odds: nil) : self

    # @return [Access::Planner]
    def planner = @planner ||= Access::Planner.new(self)

    # The same car with a planner of its own.
    # @return [Car]
    def planned = planned_by(Access::Planner.new(self))

    # The same car, planned by a planner that was made for one alike.
    # @return [Car]
    def planned_by(planner) = with(planner: planner)

    # Work on this car (see Job).
    # @param targets [Array<Profile::Target>]
    # @raise [ImpossiblePlan]
    # @return [Job]
    def job(targets, **rest) = Job.new(self, targets, **rest)
  end
end
