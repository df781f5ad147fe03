# frozen_string_literal: true

require_relative "../spec_helper"

# The worked example of docs/ledger.md, by the core; the page says the same figures.
RSpec.describe "the worked example of docs/ledger.md" do
  PAGE = File.read(File.expand_path("../../../docs/ledger.md", __dir__))

  def job(day, minutes)
    {
      "id" => day.to_s,
      "finished" => "2026-03-0#{day}T10:00:00Z",
      "engine" => "PLV6",
      "technician" => "Ada",
      "mean_minutes" => 100,
      "sd_minutes" => 15,
      "actual_minutes" => minutes,
      "trouble_minutes" => 0,
      "quoted_hours" => 1.8
    }
  end

  def told(jobs) =
    NimbleLedger::Answers.to(
      {
        "format" => "nimble-ledger.history",
        "version" => 1,
        "jobs" => jobs,
        "predict" => [{ "engine" => "PLV6", "technician" => "Ada", "mean_minutes" => 100, "sd_minutes" => 15 }]
      }
    )

  it "comes to what is worked out by hand" do
    found = told([job(1, 120), job(2, 125)])
    figures = {
      "0.1126" => found["shop"],
      "0.0225" => found["engines"]["PLV6"],
      "11.3 %" => found["common_variation"] * 100,
      "117 minutes" => found["predict"].first["mean_minutes"],
      "within 133" => found["predict"].first["p80"]
    }
    figures.each do |text, value|
      figure = text[/[\d.]+/]
      expect(PAGE).to include(text)
      expect(value.round(figure[/\.(\d+)/, 1].to_s.size).to_f).to eq(figure.to_f)
    end
    expect(found["technicians"]["Ada"]).to be_within(1e-12).of(found["engines"]["PLV6"])
  end

  it "starts from the estimate as the house made it" do
    total = NimbleLedger::Time::LognormalTotal.new(100.0, 225.0)
    expect(total.quantile(0.8).round).to eq(112)
    expect(PAGE).to include("Before the two it was 100, and 112.")
  end
end
