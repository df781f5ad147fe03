# frozen_string_literal: true

require_relative "../spec_helper"

# Several shops (model.md section 17): sums and nothing else cross, and a shop starts from the others'.
RSpec.describe NimbleLedger::Ledger::Pool do
  let(:folder) { File.join(Engines::ROOT, "formats/examples") }
  let(:request) { JSON.parse(File.read("#{folder}/pool.request.json")) }
  let(:history) { JSON.parse(File.read("#{folder}/history.request.json")) }

  def answer(hash) = NimbleLedger::Answers.to(hash)

  it "leaves the asking shop out, and what fewer than two others know" do
    all = answer(request.except("for"))["engines"]
    mine = answer(request)["engines"]
    expect([all["PLOVER-V6"]["shops"], mine["PLOVER-V6"]["shops"]]).to eq([3, 2])
    expect(mine.keys).to eq(["PLOVER-V6"])
    two = answer(request.merge("shops" => request["shops"].first(2)))
    expect([two["engines"], two["outcomes"]]).to eq([{}, { "broken" => {}, "thread" => 1.0, "stubborn" => 1.0 }])
  end

  it "lets no shop weigh more than ten jobs, however many it has" do
    effect = ->(jobs) do
      shops =
        [jobs, 5].each_with_index.map do |count, i|
          engines = { "E" => { "jobs" => count, "mean_log" => i.zero? ? 1.0 : 0.0 } }
          { "id" => i.to_s, "shares" => request["shops"][0]["shares"].merge("engines" => engines) }
        end
      answer(request.except("for").merge("shops" => shops))["engines"]["E"]["mean_log"]
    end
    expect(effect.call(1_000_000)).to be_within(1e-4).of(10.0 / (10 + (5 / 1.5) + 5))
  end

  it "has shares that are the same with and without priors, and starts that count where nothing was seen" do
    plain = answer(history)
    prior = { "engines" => { "NEVER-SEEN" => 0.2, history["jobs"].first["engine"] => 0.1 } }
    asked = [{ "engine" => "NEVER-SEEN", "technician" => nil, "mean_minutes" => 100, "sd_minutes" => 12 }]
    started = answer(history.merge("priors" => prior, "predict" => asked))
    expect(started["shares"]).to eq(plain["shares"])
    expect(started["engines"]["NEVER-SEEN"]).to eq(0.2)
    unknown = answer(history.merge("predict" => asked))
    expect(started["predict"][0]["mean_minutes"]).to be > unknown["predict"][0]["mean_minutes"]
  end

  it "learns a larger variance where plugs broke together than where they broke apart" do
    plugs = ->(broken) do
      Array.new(4) do |i|
        {
          "construction" => "multi-piece",
          "soak" => "none",
          "predicted" => {
            "broken" => 0.1,
            "thread" => 0.002,
            "stubborn" => 0.06
          },
          "outcome" => i < broken ? "broken" : "free"
        }
      end
    end
    learned = ->(counts) do
      jobs =
        counts.each_with_index.map do |count, i|
          history["jobs"].first.merge("id" => "job #{i}", "plugs" => plugs.call(count))
        end
      answer(history.merge("jobs" => jobs))["outcomes"]["frailty"]
    end
    together = learned.call([4, 0, 0, 0, 0, 0, 0, 0, 0, 0] * 4)
    apart = learned.call([1, 1, 1, 1, 0, 0, 0, 0, 0, 0] * 4)
    expect(together["variance"]).to be > apart["variance"]
    expect([together["jobs"], answer(history.merge("jobs" => []))["outcomes"]["frailty"]]).to eq(
      [40, { "variance" => 0.8, "jobs" => 0 }]
    )
  end

  {
    "a shop twice" => [->(r) { r["shops"][1]["id"] = r["shops"][0]["id"] }, "/shops/1/id"],
    "a shop that is none of them" => [->(r) { r["for"] = "nobody" }, "/for"],
    "more broken than there were" => [
      ->(r) { r["shops"][2]["shares"]["outcomes"]["thread"]["whole_sum"] = 99 },
      "/shops/2/shares/outcomes/thread"
    ],
    "an effect beyond all measure" => [
      ->(r) { r["shops"][0]["shares"]["engines"]["PLOVER-V6"]["mean_log"] = 6 },
      "/shops/0/shares/engines/PLOVER-V6/mean_log"
    ],
    "a construction nobody knows" => [
      ->(r) do
        r["shops"][1]["shares"]["outcomes"]["broken"]["glass"] = {
          "plugs" => 0,
          "broken_sum" => 0,
          "whole_sum" => 0,
          "soaks" => {
          }
        }
      end,
      "/shops/1/shares/outcomes/broken/glass"
    ]
  }.each do |what, (change, path)|
    it "refuses #{what}, with the path" do
      change.call(request)
      expect { answer(request) }.to raise_error(NimbleLedger::InvalidInput) { |error|
        expect(error.details.map { |row| row["path"] }).to include(path)
      }
    end
  end
end
