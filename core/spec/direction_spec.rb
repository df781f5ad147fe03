# frozen_string_literal: true

require_relative "spec_helper"

# Where a rule may look: folders of the core stand in one order, and each reads only those before it
# (engineering.md, "Where things are headed").
RSpec.describe "the folders of the core" do
  # What stands beside the folders is in the order too: values first, what puts everything together last.
  ORDER = [
    %w[errors document shape three_points money wall_clock record],
    %w[house],
    %w[profile rules],
    %w[vehicle],
    %w[time],
    %w[access],
    %w[risk],
    %w[parts],
    %w[price],
    %w[slots],
    %w[job car],
    %w[documents estimate],
    %w[bench scope trace ledger day bill],
    %w[practice],
    %w[picture],
    %w[quote],
    %w[card],
    %w[library],
    %w[workshop],
    %w[answers]
  ].freeze
  ROOT = File.expand_path("../lib/nimble_ledger", __dir__)

  PLACE = ORDER.each_with_index.flat_map { |names, i| names.map { |name| [name, i] } }.to_h
  NAMES = PLACE.keys.to_h { |name| [name.split("_").map(&:capitalize).join, name] }

  def files = Dir["#{ROOT}/**/*.rb"].map { |path| path.delete_prefix("#{ROOT}/") }
  def place_of(file) = PLACE.fetch(file.split("/").first.delete_suffix(".rb"))

  # Names of the core that code mentions: its comments may speak of anything.
  def mentioned(file)
    code = File.readlines("#{ROOT}/#{file}").reject { |line| line.strip.start_with?("#") }.join
    own = code.scan(/(?:class|module) (\w+)|(\w+) =\s+Struct/).flatten
    code.gsub(/"[^"\n]*"/, "").scan(/(?<![\w:])(#{NAMES.keys.join("|")})(?=::|\.[a-z]|\[)/).flatten.uniq - own
  end

  it "are all in the order" do
    expect(files.reject { |file| PLACE.key?(file.split("/").first.delete_suffix(".rb")) }).to eq([])
  end

  it "read only what stands before them: no two read one another" do
    against =
      files.flat_map do |file|
        mentioned(file).select { |name| PLACE[NAMES[name]] > place_of(file) }.map { |name| "#{file} reads #{name}" }
      end
    expect(against).to eq([])
  end

  it "sees a rule that looks where it may not" do
    expect(mentioned("price/lines.rb")).to include("Parts", "Money")
    expect(PLACE["price"]).to be > PLACE["parts"]
  end
end
