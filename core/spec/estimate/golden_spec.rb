# frozen_string_literal: true

require_relative "../spec_helper"

# Revisions as they were stored under rules 1 (model.md section 7): a frozen request recomputes to the same figures for
# ever. A change in arithmetic is a new number, and these still hold. The files are not to be written anew.
RSpec.describe "golden revisions" do
  # What says in which order things are done, not what they come to.
  MOVED = %w[order_of_work].freeze

  # Every figure that was stored and is not there again, with its place; keys added since are free.
  def missing(stored, again, path = "")
    case stored
    when Hash then again.is_a?(Hash) ? stored.except(*MOVED).flat_map { |key, value| missing(value, again[key], "#{path}/#{key}") } : [path]
    when Array then again.is_a?(Array) && again.size == stored.size ? stored.each_index.flat_map { |i| missing(stored[i], again[i], "#{path}/#{i}") } : [path]
    else stored == again ? [] : ["#{path} #{stored} is #{again.inspect}"]
    end
  end

  Dir[File.join(__dir__, "../fixtures/golden/*.json")].sort.each do |path|
    stored = JSON.parse(File.read(path))

    it "#{File.basename(path, ".json")} recomputes to the same cents, hours and chances" do
      again = JSON.parse(JSON.generate(NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build({ "rules" => stored["rules"] }.merge(stored["request"]))).to_h))
      expect(missing(stored["answer"], again)).to eq([])
    end

    it "#{File.basename(path, ".json")} keeps its lines, and they sum to its total" do
      price = stored["answer"]["price"]
      expect(price["lines"].sum { |line| line["cents"] }).to eq(price["total_cents"])
    end
  end

  it "cover a kit, a soak, two people and tax-inclusive prices, all under the rules in force" do
    all = Dir[File.join(__dir__, "../fixtures/golden/*.json")].map { |path| JSON.parse(File.read(path)) }
    expect(all.map { |golden| golden["rules"] }.uniq).to contain_exactly(1, 2)
    expect(all.map { |golden| golden["answer"]["price"] }).to include(a_hash_including("left_over"), a_hash_including("included_tax_cents"))
    expect(all.map { |golden| golden["answer"]["plan"]["overnight"] }).to include(true, false)
  end
end
