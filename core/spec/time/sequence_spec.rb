# frozen_string_literal: true

require_relative "../spec_helper"

# The job as pieces in the order of rules 1 and 2 (model.md section 15); that of rules 3 is in order_of_work_spec.rb.
RSpec.describe NimbleLedger::Time::Sequence do
  def ids(hash, targets, **rest) =
    NimbleLedger::Estimate::Request
      .build(Engines.request(targets, engine: hash, rules: 2, **rest))
      .job
      .plan
      .sequence
      .pieces
      .map(&:id)

  let(:two) do
    steps = [
      step("cover", back: "after-run"),
      step("cap", back: "at-once"),
      step("coil-1", after: %w[cover cap], cylinder: 1),
      step("coil-2", after: %w[cover cap], cylinder: 2)
    ]
    plugs = [1, 2].map { |n| target("plug-#{n}", work: "plug", cylinder: n, through: ["coil-#{n}"]) }
    profile(steps: steps, targets: plugs + [target("squeeze", work: "compression", cylinder: 1, through: ["coil-1"])])
  end

  it "takes one cylinder at a time, puts the cap straight back, and the cover on after the running check" do
    expect(ids(two, %w[plug-1 plug-2])).to eq(
      %w[
        house:receive
        house:cold_check
        step:cover:remove
        step:cap:remove
        step:cap:refit
        step:coil-1:remove
        target:plug-1:work
        step:coil-1:refit
        step:coil-2:remove
        target:plug-2:work
        step:coil-2:refit
        house:leak_check
        step:cover:refit
        house:road_test
      ]
    )
  end

  it "cranks the cylinders clear after the last plug is out, before a coil goes back over a well" do
    crank = target("crank", work: "other", through: ["cover"]).merge("label" => "Crank clear", "plugs_out" => true)
    two["targets"] << crank
    done = ids(two, %w[plug-1 plug-2 crank])
    at = done.index("target:crank:work")
    expect(%w[target:plug-1:work target:plug-2:work].map { |id| done.index(id) }).to all(be < at)
    expect(%w[step:coil-1:refit step:coil-2:refit].map { |id| done.index(id) }).to all(be > at)
  end

  it "puts a filler cap back as soon as the cover that lifts over it is off" do
    steps = [step("cap", back: "at-once"), step("cover", after: ["cap"]), step("pipe", after: ["cover"])]
    hash = profile(steps: steps, targets: [target("t", through: ["pipe"])])
    expect(ids(hash, ["t"])).to include("step:cap:refit")
    expect(ids(hash, ["t"]).grep(/step/)).to eq(
      %w[step:cap:remove step:cover:remove step:cap:refit step:pipe:remove step:pipe:refit step:cover:refit]
    )
  end

  it "takes every coil off before a soak, and leaves one bore open at a time after it" do
    expect(ids(two, %w[plug-1 plug-2], soak: "short").drop(5)).to eq(
      %w[
        step:coil-1:remove
        step:coil-2:remove
        soak
        wait:soak
        target:plug-1:work
        target:plug-2:work
        step:coil-2:refit
        step:coil-1:refit
        house:leak_check
        step:cover:refit
        house:road_test
      ]
    )
  end

  it "does closing work by its own order after all refit, the battery at the start" do
    steps = [
      step("a", battery: true, closing: [{ "what" => "late", "minutes" => [1, 1, 1], "order" => 5 }]),
      step("b", after: ["a"], closing: [{ "what" => "early", "minutes" => [1, 1, 1] }])
    ]
    request =
      NimbleLedger::Estimate::Request.build(
        Engines.request(
          ["t"],
          engine: profile(steps: steps, targets: [target("t", through: ["b"])]),
          codes: true,
          rules: 2
        )
      )
    pieces = request.job.plan.sequence.pieces
    expect(pieces.map(&:id).first(3)).to eq(%w[house:receive house:cold_check house:battery])
    expect(pieces.map(&:label)).to end_with(
      "early",
      "late",
      "Start, idle, leak check",
      "Road test under load",
      "Scan and clear codes"
    )
  end

  it "holds every task once: labor is the plan's, whatever the order of work" do
    Engines.codes.each do |code|
      %w[one-at-a-time all-out].each do |order|
        job =
          Engines.answer(
            code,
            Engines.targets(code, "plug", Engines.engine(code).cylinders.map(&:number)),
            house: {
              "order_of_work" => order
            },
            soak: Engines.engine(code).soaks.last
          ).job
        pieces = NimbleLedger::Time::Sequence.new(job.plan).pieces
        expect(pieces.sum(&:labor_minutes)).to be_within(1e-6).of(job.plan.job.total.mean), code
        expect(pieces.select(&:waiting?).sum(&:clock_minutes)).to be_within(1e-9).of(job.plan.wait_minutes), code
        expect(pieces.reject { |piece| piece.kind == "closing" || piece.waiting? }.map(&:id).tally.values.max).to eq(1),
        code
      end
    end
  end
end
