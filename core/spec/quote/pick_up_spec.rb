# frozen_string_literal: true

require_relative "../spec_helper"

RSpec.describe NimbleLedger::Slots::ReadyTime do
  let(:shop) { described_class.from(NimbleLedger::House::Settings.defaults["opening_hours"]) }

  def at(text) = described_class::Moment.parse(text)

  it "lays the work end to end within opening hours" do
    expect(shop.ready(at("2026-11-24T09:00"), 90).to_s).to eq("2026-11-24T10:30")
    expect(shop.ready(at("2026-11-24T06:00"), 60).to_s).to eq("2026-11-24T09:00")
    expect(shop.ready(at("2026-11-24T17:00"), 60).to_s).to eq("2026-11-25T08:30")
    expect(shop.ready(at("2026-11-28T12:00"), 60).to_s).to eq("2026-11-30T08:30")
  end

  it "goes on at the next opening after an overnight soak" do
    expect(shop.ready(at("2026-11-24T09:00"), 120, before_night: 60).to_s).to eq("2026-11-25T09:00")
    expect(shop.ready(at("2026-11-27T16:30"), 120, before_night: 60).to_s).to eq("2026-11-30T09:00")
  end

  it "cools by mass and arrival, and refuses days that do not exist" do
    house = NimbleLedger::House::Settings.defaults
    expect(NimbleLedger::Time::Cooling.minutes(Engines.engine("YUX8"), "hot", house)).to eq(187.5)
    expect(NimbleLedger::Time::Cooling.minutes(Engines.engine("SK18"), "cold", house)).to eq(0)
    expect { at("2026-02-31T09:00") }.to raise_error(NimbleLedger::InvalidInput)
    expect { described_class.new({ "mon" => nil }) }.to raise_error(ArgumentError)
  end

  describe "where hours were learned" do
    def job(learned = nil)
      request = {
        "format" => "nimble-ledger.estimate-request",
        "version" => 1,
        "engine" => Engines.profile_of("JIV6"),
        "targets" => %w[plug-5 coil-5]
      }
      request["learned"] = { "hours" => learned } if learned
      NimbleLedger::Estimate::Request.build(request).job
    end

    def ready(job) =
      NimbleLedger::Quote::PickUp.new(
        job.car.engine,
        drop_off: at("2026-11-24T09:00"),
        arrival: "cold",
        house: job.car.house
      ).ready(job.plan)

    let(:learned) do
      { "jobs" => 20, "effect" => 0.3, "common" => 0.03, "doubt" => 0.004, "z" => [{ "p" => 0.8, "z" => 1.1 }] }
    end

    it "promises by the corrected p80, and says the estimated hours beside the quoted ones" do
      plain, corrected = job, job(learned)
      later = corrected.plan.job.total.quantile(0.8) - plain.plan.job.total.quantile(0.8)
      expect(later).to be > 30
      minutes = ->(moment) { (moment.date.jd * 24 * 60) + moment.minute }
      share =
        plain.plan.sequence.pieces.reject(&:waiting?).then { |all| all.sum(&:clock_minutes) / all.sum(&:labor_minutes) }
      expect(minutes.call(ready(corrected)) - minutes.call(ready(plain))).to be_within(1).of(later * share)
      told = NimbleLedger::Quote::LearnedSection.of(corrected)
      expect(told["estimated_hours"]).to eq(plain.quoted_tenths / 10.0)
      expect(told["hours"]).to eq(corrected.quoted_tenths / 10.0)
      expect(NimbleLedger::Quote::LearnedSection.of(plain)).to be_nil
    end

    it "prices labor, what could happen and the limit by the corrected hours" do
      catalog = Engines.catalog
      past = {
        "odometer_km" => 150_000,
        "plugs_changed_km" => 40_000,
        "plugs_changed_years" => 8,
        "compound_used" => false
      }
      priced = ->(given) do
        job =
          NimbleLedger::Estimate::Request.build(
            {
              "format" => "nimble-ledger.estimate-request",
              "version" => 1,
              "engine" => Engines.profile_of("JIV6"),
              "targets" => %w[plug-5 coil-5],
              "history" => past
            }.merge(given ? { "learned" => { "hours" => given } } : {}),
            documents: NimbleLedger::Documents.new(catalog: catalog)
          ).job
        [job, NimbleLedger::Risk::Trouble.for(job)]
      end
      (plain, trouble), (moved, worse) = priced.call(nil), priced.call(learned)
      labor = ->(job) { job.price.list.find { |line| line.kind == "labor" } }
      expect(labor.call(moved).cents).to be > labor.call(plain).cents
      expect(moved.price.list.reject { |line| line.kind == "labor" }.map(&:label)).to eq(
        plain.price.list.reject { |line| line.kind == "labor" }.map(&:label)
      )
      expect(worse.mixture.quantile(0.8)).to be > trouble.mixture.quantile(0.8)
    end
  end
end
