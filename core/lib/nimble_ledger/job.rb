# frozen_string_literal: true

module NimbleLedger
  # Work on a car: what is done, with which soak, and what was set by hand. Plan, hours, needs, price and odds are
  # worked out when they are asked for.
  #
  #   job = car.job(targets, soak: "short", discount: { "cents" => 1000 })
  #   job.price.total_cents
  class Job
    # targets: what is done, with what a soak adds; asked: what was asked for.
    attr_reader :car,
                :targets,
                :asked,
                :soak,
                :override,
                :discount,
                :diagnosis,
                :codes,
                :live,
                :effort,
                :plan,
                :without,
                :lines

    # @param car [Car]
    # @param targets [Array<Profile::Target>]
    # @param soak [String] protocol
    # @param override [Estimate::Override, nil] the advisor's own hours
    # @param discount [Hash, nil] {"label", "cents"}
    # @param diagnosis [Price::Diagnosis, nil] what finding out may cost beside it
    # @param codes [Boolean] whether the car came with fault codes
    # @param live [Risk::LiveOdds, nil] what has come out already
    # @param without [Array<String>] targets that are not to be added
    # @param lines [Array<Price::HandLine>] work and parts by hand
    # @param effort [Access::NodeBudget] shared by all that is computed for one answer or page
    # @raise [ImpossiblePlan]
    def initialize(
      car,
      targets,
      soak: "none",
      override: nil,
      discount: nil,
      diagnosis: nil,
      codes: false,
      live: nil,
      without: [],
      lines: [],
      effort: Access::NodeBudget.new
    )
      @car = car
      @lines = lines
      @asked = targets
      @soak = soak
      @without = without
      @override = override
      @discount = discount
      @diagnosis = diagnosis
      @codes = codes
      @live = live
      @effort = effort
      @targets = crank.with(boots.with(asked))
      @plan = planner.plan(self.targets, soak: soak, codes: codes, effort: effort)
    end

    # What a soak adds to these targets (model.md section 15, 7).
    # @return [Access::ClearingCrank]
    def crank = @crank ||= Access::ClearingCrank.new(planner, soak: soak, without: without)

    # What new plugs bring with them by the house's rule.
    # @return [Parts::BootsWithPlugs]
    def boots = @boots ||= Parts::BootsWithPlugs.new(planner, without: without)

    def planner = car.planner

    # What a job is beside its car and targets.
    MEMBERS = %i[soak override discount diagnosis codes live without lines effort].freeze
    private_constant :MEMBERS

    # The same job with something else.
    # @param targets [Array<Profile::Target>]
    # @param car [Car]
    # @return [Job]
    def with(targets: asked, car: self.car, **changes) =
      Job.new(car, targets, **MEMBERS.to_h { |name| [name, public_send(name)] }, **changes)

    # The same car and soak with other targets: hours set by hand were for others, the discount stays.
    # @param lines [Array<Price::HandLine>] work and parts by hand beside them
    def with_targets(targets, lines: self.lines) = with(targets: targets, lines: lines, override: nil, live: nil)

    # Other work on the same car on a day of its own: what was set by hand for this job does not touch it.
    def another_day(targets) = Job.new(car, targets, soak: soak, codes: codes, without: without, effort: effort)

    # The same job on the car with other pins or equipment.
    # @param car [Car]
    def on(car) = with(car: car)

    # The same job with another soak protocol.
    def with_soak(protocol) = with(soak: protocol)

    # Which power tools may touch a plug (House::Schools): steady impact is what one of the soaks is.
    # @return [String]
    def power_tools = soak == "overnight-impact" ? "after-soak" : car.house["power_tools"]

    # Hours billed without removal trouble: the house quantile, moved by the advisor's override (model.md section 4).
    # @return [Integer] tenths of an hour
    def quoted_tenths = [plan.job.quoted_tenths + override_tenths, 0].max

    # What the advisor added to the computed hours; 0 without an override.
    # @return [Integer] tenths of an hour
    def override_tenths = override ? override.tenths : 0

    # @return [Float] share of such jobs, without removal trouble, that are done within the quoted hours
    def quoted_share = plan.job.total.cdf(quoted_tenths * 6.0)

    # @return [Array<Access::WhileOpen::Row>]
    def while_open = opened.rows

    # Targets whose minutes while open could not be decided within the effort.
    # @return [Array<Profile::Target>]
    def undecided = opened.undecided

    # Ways about as short that spare the car something.
    # @return [Array<Access::NearTies::Row>]
    def near_ties
      renews = ->(other) { Parts::Needed.new(other, house: car.house).rows.any? { |row| row.rule == "replace" } }
      Access::NearTies.new(self, minutes: car.house["near_tie_minutes"], new_parts: renews).rows
    end

    # @return [Parts::Needed]
    def needed = @needed ||= Parts::Needed.new(plan, house: car.house)

    # @return [Price::Lines, nil] nil without a catalog
    def price
      return nil unless car.catalog

      @price ||=
        Price::Lines.new(
          billed ? billed.quoted_tenths : 0,
          billed ? billed.needed : Parts::Nothing,
          car.catalog,
          house: car.house,
          discount: discount,
          diagnosis: diagnosis,
          owed: owed,
          by_hand: lines,
          used_parts_as_singles: car.rules.used_parts_as_singles?
        )
    end

    # Targets the shop owes under its warranty (model.md section 7): done with the rest, priced at zero.
    # @return [Array<Profile::Target>]
    def owed = targets.select { |target| car.warranty.include?(target.id) }

    # The job as it is billed: what the customer would pay for without what the shop owes.
    # @return [Job, nil] this one where nothing is owed, nil where everything is
    def billed
      return self if owed.empty?

      left = asked - owed
      left.empty? ? nil : (@billed ||= bill(left))
    end

    # @return [Integer, nil] cents one of a part sells for here; nil when nobody has a price
    def selling_price(part)
      brackets = car.house["markup"]
      singles = car.rules.used_parts_as_singles? && car.house["kit_rule"] == "used-parts"
      if singles
        Price::Selling.used_price(car.catalog, part, brackets)
      else
        Price::Selling.price(car.catalog, part, brackets)
      end
    end

    # @return [Risk::Outcomes, nil] nil without history, or when the profile does not state the plug's construction
    def outcomes
      return nil unless Risk::PlugRemoval.known?(car)

      @outcomes ||= Risk::Outcomes.new(plan, removal, car, live: live)
    end

    # @return [Risk::PlugRemoval] the odds of each plug before any is turned
    def removal = @removal ||= Risk::PlugRemoval.new(car, soak: soak)

    private

    def bill(left) = with(targets: left, live: live&.of(left))

    def opened = @opened ||= Access::WhileOpen.new(planner, targets, soak: soak, crank: crank, effort: effort)
  end
end
