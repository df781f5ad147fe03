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
    when Hash
      if again.is_a?(Hash)
        stored.except(*MOVED).flat_map { |key, value| missing(value, again[key], "#{path}/#{key}") }
      else
        [path]
      end
    when Array
      if again.is_a?(Array) && again.size == stored.size
        stored.each_index.flat_map { |i| missing(stored[i], again[i], "#{path}/#{i}") }
      else
        [path]
      end
    else
      stored == again ? [] : ["#{path} #{stored} is #{again.inspect}"]
    end
  end

  def recomputed(stored)
    request = NimbleLedger::Estimate::Request.build({ "rules" => stored["rules"] }.merge(stored["request"]))
    JSON.parse(JSON.generate(NimbleLedger::Estimate::Answer.new(request).to_h))
  end

  it "would notice a changed cent, a lost line and a moved chance" do
    stored = { "cents" => [1, 2], "risk" => { "odds" => 0.5 }, "order_of_work" => [1] }
    expect(missing(stored, { "cents" => [1, 3], "risk" => { "odds" => 0.4 } })).to eq(
      ["/cents/1 2 is 3", "/risk/odds 0.5 is 0.4"]
    )
    expect(missing(stored, { "cents" => [1], "risk" => nil })).to eq(%w[/cents /risk])
    expect(missing(stored, stored.merge("since" => 1, "order_of_work" => [2]))).to eq([])
  end

  Dir[File.join(__dir__, "../fixtures/golden/*.json")].sort.each do |path|
    stored = JSON.parse(File.read(path))

    it "#{File.basename(path, ".json")} recomputes to the same cents, hours and chances, line by line" do
      again = recomputed(stored)
      expect(missing(stored["answer"], again)).to eq([])
      expect(again["price"]["lines"].sum { |line| line["cents"] }).to eq(stored["answer"]["price"]["total_cents"])
    end
  end

  it "between them recompute a kit's rest, an overnight soak and taxed prices, under every rules there are" do
    all = Dir[File.join(__dir__, "../fixtures/golden/*.json")].map { |path| JSON.parse(File.read(path)) }
    expect(all.map { |golden| golden["rules"] }.uniq).to match_array(NimbleLedger::Rules::KNOWN.keys)
    again = all.map { |golden| recomputed(golden) }
    expect(again.map { |answer| answer["price"] }).to include(
      a_hash_including("left_over"),
      a_hash_including("included_tax_cents")
    )
    expect(again.map { |answer| answer["plan"]["overnight"] }).to include(true, false)
  end
end
