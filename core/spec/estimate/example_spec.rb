# frozen_string_literal: true

require_relative "../spec_helper"
require "open3"
require "tmpdir"

# bin/estimate as other programs use it, held against an example computed independently.
RSpec.describe "bin/estimate" do
  folder = File.join(Engines::ROOT, "formats/examples")
  command = File.join(Engines::ROOT, "bin/estimate")

  def compare(expected, found, path = "")
    case expected
    when Hash
      expected.each { |key, value| compare(value, found.fetch(key), "#{path}/#{key}") }
    when Array
      expect(found.size).to eq(expected.size), path
      expected.zip(found).each_with_index { |(a, b), i| compare(a, b, "#{path}/#{i}") }
    when Float
      expect(found).to be_within(1e-9 * [1, expected.abs].max).of(expected), path
    else
      expect(found).to eq(expected), path
    end
  end

  %w[rear-one all-and-throttle priced rules-two no-tray-live].each do |name|
    it "reproduces #{name}" do
      out, status = Open3.capture2(command, "#{folder}/#{name}.request.json")
      expect(status.exitstatus).to eq(0)
      compare(JSON.parse(File.read("#{folder}/#{name}.answer.json")), JSON.parse(out))
    end
  end

  def run(text)
    out, status = Open3.capture2(File.join(Engines::ROOT, "bin/estimate"), "-", stdin_data: text)
    [JSON.parse(out)["error"], status.exitstatus]
  end

  it "exits 2 with code, message and path for bad requests" do
    base = Engines.request(["plug-1"], engine: Engines.profile_of("SK18"))
    {
      %w[/targets/0 invalid_request] => base.merge("targets" => ["ghost"]),
      %w[/targets invalid_request] => base.merge("targets" => []),
      %w[/targets/1 invalid_request] => base.merge("targets" => %w[plug-1 plug-1]),
      %w[/speed invalid_request] => base.merge("speed" => 1),
      %w[/condition/corrosion invalid_request] => base.merge("condition" => { "corrosion" => "rotten" }),
      %w[/house/rate invalid_request] => base.merge("house" => { "rate" => 1 }),
      %w[/history/plugs_changed_km invalid_input] =>
        base.merge("history" => { "odometer_km" => 5, "plugs_changed_km" => 6, "plugs_changed_years" => 1 }),
      %w[/engine/steps/0/remove invalid_profile] =>
        base.merge("engine" => Engines.profile_of("SK18").tap { |h| h["steps"][0]["remove"] = [9, 1, 2] })
    }.each do |(path, code), request|
      error, status = run(JSON.generate(request))
      expect([status, error["code"], error["details"].first["path"]]).to eq([2, code, path])
      expect(error["message"]).not_to match(/undefined|nil|\.rb/)
    end
  end

  it "exits 2 for what is no request at all, and for files it cannot read" do
    ["", "[]", "null", "{", "\xFF\xFE"].each { |text| expect(run(text).last).to eq(2) }
    error, status = run(JSON.generate(Engines.request(["plug-1"], engine: "no/such.engine.json")))
    expect([status, error["code"]]).to eq([2, "unreadable_file"])
  end

  it "exits 3 for an impossible plan and names what would open it" do
    engine = Engines.profile_of("SK18")
    engine["steps"][0]["needs"] = ["cover-puller"]
    error, status = run(JSON.generate(Engines.request(["plug-1"], engine: engine)))
    expect([status, error["code"]]).to eq([3, "impossible_plan"])
    expect(error["message"]).to include("plug-1").and include("cover-puller")
  end

  it "leaves out what it was not asked for: no catalog, no price; no history, no risk" do
    answer = Engines.answer("SK18", ["plug-1"]).to_h
    expect(answer.keys).not_to include("price", "risk")
    history = { "odometer_km" => 10, "plugs_changed_km" => 0, "plugs_changed_years" => 0 }
    full = Engines.answer("SK18", ["plug-1"], catalog: Engines.catalog, history: history).to_h
    expect(full.keys).to include("price", "risk")
  end
end
