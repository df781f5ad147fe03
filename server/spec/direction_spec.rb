# frozen_string_literal: true

require_relative "spec_helper"

# Features say whom they read and what they tell (feature.rb): the code does no more than that, and no two need each
# other.
RSpec.describe NimbleServer::FeatureRegistry do
  folders = described_class.folders
  constants = folders.to_h { |folder| [folder.split("_").map(&:capitalize).join, folder] }

  # Names of features that code mentions: comments may speak of anything.
  mentioned = ->(path) do
    code = File.readlines(path).reject { |line| line.strip.start_with?("#") }.join.gsub(/"[^"\n#]*"/, "")
    code.scan(/(?<![\w:])(?:Features::)?(#{constants.keys.join("|")})::/).flatten.uniq.map { |name| constants[name] }
  end

  def feature(name, &block) = NimbleServer::Feature.define(name, &block)

  it "has a declaration for every folder" do
    expect(described_class.shipped.map { |feature| feature.name.to_s }).to match_array(folders)
  end

  folders.each do |folder|
    it "reads from #{folder} what it says it reads, no more and no less" do
      found = Dir["#{described_class::FOLDER}/#{folder}/*.rb"].flat_map(&mentioned).uniq - [folder]
      declared = described_class.shipped.find { |feature| feature.name.to_s == folder }.dependencies
      expect(found).to match_array(declared.map(&:to_s))
    end
  end

  it "keeps features out of what stands beneath them" do
    beneath = Dir["#{NimbleServer::ROOT}/server/lib/nimble_server/{documents,stand_ins}/*.rb"]
    expect(
      beneath.to_h { |path| [File.basename(path), mentioned.call(path)] }.reject { |_path, names| names.empty? }
    ).to eq({})
  end

  it "tells only what is listened to somewhere" do
    told = described_class.shipped.flat_map(&:events)
    expect(told.select { |event| described_class.shipped.listeners(event).empty? }).to eq([])
  end

  it "refuses what is not there, what goes in a circle, and events nobody tells or two tell" do
    refused = ->(*features) do
      described_class.new(features)
      nil
    rescue NimbleServer::Feature::Undeclared => e
      e.message
    end
    expect(refused.call(feature(:bay) { depends :moon })).to include("moon, which is not there")
    circle = [feature(:bay) { depends :yard }, feature(:yard) { depends :bay }]
    expect(refused.call(*circle)).to match(/need each other: .*(bay.*yard|yard.*bay)/)
    expect(refused.call(feature(:bay) { on(:dusk) {} })).to include("nobody tells: dusk")
    twice = [feature(:bay) { publishes :dusk }, feature(:yard) { publishes :dusk }]
    expect(refused.call(*twice)).to include("two features: dusk")
    expect(refused.call(feature(:bay) { publishes :dusk }, feature(:yard) { on(:dusk) {} })).to be_nil
  end

  it "does not let a feature tell what it never said it would" do
    expect { feature(:bay) { publishes :dawn }.publish(:dusk, nil) }.to raise_error(
      NimbleServer::Feature::Undeclared,
      "bay does not publish dusk."
    )
  end
end
