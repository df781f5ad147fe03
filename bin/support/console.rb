# frozen_string_literal: true

require_relative "../../core/lib/nimble_ledger"

# What bin/console offers beside the core itself.
def profile(code) = JSON.parse(File.read(File.expand_path("../../demo/engines/#{code.downcase}.engine.json", __dir__)))

# @return [NimbleLedger::Profile::Engine] of the demo
def engine(code) = NimbleLedger::Profile::Engine.build(profile(code))

# @return [Hash] the demo's price list
def catalog = JSON.parse(File.read(File.expand_path("../../demo/merrow.catalog.json", __dir__)))

# @return [Hash] the answer to an estimate of some targets
def estimate(code, *targets, **rest)
  NimbleLedger::Answers.to(
    {
      "format" => "nimble-ledger.estimate-request",
      "version" => 1,
      "engine" => profile(code),
      "targets" => targets,
      "catalog" => catalog,
      **rest.transform_keys(&:to_s)
    }
  )
end
