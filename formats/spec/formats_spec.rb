# frozen_string_literal: true

require "json_schemer"
require_relative "../contract"

RSpec.describe Contract do
  folder = File.expand_path("..", __dir__)
  root = File.expand_path("..", folder)

  described_class.documents.each do |name, document|
    it "#{name} is what the program declares (run bin/formats)" do
      expect(JSON.parse(File.read(File.join(folder, name)))).to eq(JSON.parse(JSON.generate(document)))
    end
  end

  def schemer(name) = JSONSchemer.schema(JSON.parse(File.read(File.join(File.expand_path("..", __dir__), name))))

  Dir[File.join(root, "demo/engines/*.engine.json"), File.join(root, "formats/examples/*.engine.json")].each do |path|
    it "#{File.basename(path)} fits the published schema and the core" do
      profile = JSON.parse(File.read(path))
      expect(schemer("engine.schema.json").validate(profile).map { |e| e["error"] }).to be_empty
      expect(NimbleLedger::Profile::Engine.build(profile).warnings).to be_empty
    end
  end

  it "the demo price list and the answers of the core fit their schemas" do
    catalog = JSON.parse(File.read(File.join(root, "demo/merrow.catalog.json")))
    expect(schemer("catalog.schema.json").valid?(catalog)).to be(true)
    engine = JSON.parse(File.read(File.join(root, "demo/engines/kuj6.engine.json")))
    request = {
      "format" => "nimble-ledger.estimate-request",
      "version" => 1,
      "engine" => engine,
      "catalog" => catalog,
      "targets" => %w[plug-2 coil-2],
      "history" => {
        "odometer_km" => 100_000,
        "plugs_changed_km" => 0,
        "plugs_changed_years" => 8
      }
    }
    expect(schemer("estimate-request.schema.json").valid?(request)).to be(true)
    answer = NimbleLedger::Estimate::Answer.new(NimbleLedger::Estimate::Request.build(request)).to_h
    expect(
      schemer("estimate.schema.json").validate(JSON.parse(JSON.generate(answer))).map { |e| e["error"] }
    ).to be_empty
  end

  others =
    %w[bench scopes trace history priors day pace purchase bill pool].to_h do |name|
      [
        "#{name}.request.json",
        %w[history priors].include?(name) ? "history.schema.json" : "#{name}-request.schema.json"
      ]
    end
  others.each do |example, name|
    it "the example #{example} fits #{name}" do
      request = JSON.parse(File.read(File.join(root, "formats/examples", example)))
      expect(schemer(name).validate(request).map { |e| e["error"] }).to be_empty
      expect(schemer(name).valid?(request.merge("verison" => 1))).to be(false)
    end
  end

  Dir[File.join(root, "formats/examples/*.request.json")].each do |path|
    next if others.key?(File.basename(path))

    it "the example #{File.basename(path)} and its answer fit their schemas" do
      expect(
        schemer("estimate-request.schema.json").validate(JSON.parse(File.read(path))).map { |e| e["error"] }
      ).to be_empty
      printed = IO.popen([File.join(root, "bin/estimate"), path], &:read)
      expect(schemer("estimate.schema.json").validate(JSON.parse(printed)).map { |e| e["error"] }).to be_empty
    end
  end

  # The schema and the core judge shapes alike: both refuse, or both accept.
  it "schema and core agree on hundreds of profiles with one value changed" do
    schema = schemer("engine.schema.json")
    sound = JSON.parse(File.read(File.join(root, "formats/examples/tern-v6.engine.json")))
    rng = Random.new(7)
    verdicts =
      300.times.map do
        profile = Marshal.load(Marshal.dump(sound))
        spoil(profile, rng)
        by_shape =
          NimbleLedger::Profile::SHAPE
            .faults(profile)
            .reject { |fault| fault["message"].match?(/is above|control|must not be empty/) }
            .empty?
        [schema.valid?(profile), by_shape]
      end
    expect(verdicts.count { |a, _b| !a }).to be > 100
    expect(verdicts.reject { |a, b| a == b }).to be_empty
  end

  def spoil(node, rng)
    key = node.is_a?(Hash) ? node.keys.sample(random: rng) : rng.rand(node.size)
    child = node[key]
    return spoil(child, rng) if (child.is_a?(Hash) || child.is_a?(Array)) && !child.empty? && rng.rand < 0.75

    node[key] = [nil, "text", -1, 1.5, [], {}, true, 99_999_999].sample(random: rng)
  end
end
