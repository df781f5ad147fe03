# frozen_string_literal: true

module NimbleServer
  # Two years of the demo shop's jobs, made up by the core's simulator from a truth nobody tells the ledger: one engine
  # takes longer than its profile says, one technician is quick, the shop's days vary more than it believes, and plugs
  # break oftener than the odds.
  class DemoHistory
    COUNT = 312
    DAYS = 728
    SEED = 20_260
    # Names of people who never were; the first is the technician who signs in.
    HANDS = { "Wendel Parr" => 0.06, "Ebba Quillon" => 0.0 }.freeze
    EFFECTS = {
      "JIV6" => 0.24,
      "SK18" => -0.05,
      "KUJ6" => 0.04,
      "QT14" => 0.0,
      "YUX8" => 0.02,
      "PW16" => -0.03,
      "OC30" => 0.1,
      "TB20" => -0.08
    }.freeze
    HISTORY = {
      "odometer_km" => 150_000,
      "plugs_changed_km" => 40_000,
      "plugs_changed_years" => 8,
      "compound_used" => false
    }.freeze
    TASKS = 4
    SOAKS = %w[short overnight].freeze
    GUIDE = 0.8
    GUIDE_LEAST = 0.6

    # @param shop [Shop]
    # @param technician [String] who signs in
    def initialize(shop, technician)
      @shop = shop
      @technician = technician
    end

    def load
      Features::Ledger::Posting.new(@shop).import(simulator.jobs(COUNT, from: from, days: DAYS), source: "demo")
    end

    private

    def from = @shop.now - ((DAYS + 2) * 86_400)

    def simulator
      truth =
        NimbleLedger::Ledger::Simulator::Truth.new(
          engines: EFFECTS,
          technicians: {
            @technician => -0.04,
            **HANDS
          },
          level: 0.03,
          drift: -0.02,
          common: 0.16,
          own: 0.08,
          breaks: 1.6
        )
      NimbleLedger::Ledger::Simulator.new(
        SEED,
        truth: truth,
        work: EFFECTS.keys.to_h { |code| [code, estimates(code)] }
      )
    end

    # What such a shop is asked for: a plug and its coil, the plugs of one bank, all of them; plugs that break easily
    # with and without a soak.
    def estimates(code)
      engine = Library.engine(@shop, Library.newest_engine(@shop, code)[:id])
      numbers = engine.cylinders.map(&:number)
      plugs = ->(list) { list.map { |number| "plug-#{number}" } }
      asked = [
        [*plugs.call([numbers.first]), "coil-#{numbers.first}"],
        plugs.call(numbers.first(2)),
        plugs.call(numbers)
      ]
      soaks = engine.plug("construction") == "multi-piece" ? ["none", *(SOAKS & engine.soaks)] : ["none"]
      asked.product(soaks).filter_map { |ids, soak| estimate(engine, ids.select { |id| engine.target(id) }, soak) }
    end

    def estimate(engine, ids, soak)
      return nil if ids.empty?

      house = Features::HouseRules::House.new(@shop)
      request = {
        "format" => "nimble-ledger.estimate-request",
        "version" => 1,
        "engine" => {
        },
        "targets" => ids,
        "soak" => soak,
        "equipment" => house.equipment,
        "history" => HISTORY
      }
      documents = NimbleLedger::Documents.new(engine: engine)
      job = NimbleLedger::Estimate::Request.build(request, documents: documents, base: house.settings).job
      said(job)
    rescue NimbleLedger::ImpossiblePlan
      nil
    end

    def said(job)
      total = job.plan.job.estimated
      tasks = job.plan.job.tasks.select { |task| %w[remove refit].include?(task.kind) }.max_by(TASKS, &:mean)
      {
        "mean_minutes" => total.mean.to_f,
        "sd_minutes" => total.sd,
        "quoted_hours" => job.quoted_tenths / 10.0,
        "reference_hours" => guide(job),
        "tasks" => tasks.map { |task| timed(task) },
        "plugs" => plugs(job)
      }
    end

    def timed(task)
      piece = NimbleLedger::Time::PieceId.step(task.ref, task.kind)
      { "task" => piece.to_s, "estimate" => task.mean.to_f }
    end

    # A printed guide's hours: round, and the same however deep it goes beyond the first layers.
    def guide(job) = [(job.plan.job.estimated.mean / 60 * GUIDE * 5).ceil / 5.0, GUIDE_LEAST].max

    def plugs(job)
      construction = job.car.engine.plug("construction") or return []
      (job.outcomes&.plug_rows || []).map do |row|
        chances = row.chances.to_h.transform_keys(&:to_s).slice("broken", "thread", "stubborn").transform_values(&:to_f)
        { "construction" => construction, "soak" => job.soak, "predicted" => chances }
      end
    end
  end
end
