# frozen_string_literal: true

# The shipped engines and the worked example, for specs.
module Engines
  ROOT = File.expand_path("../../..", __dir__)

  module_function

  def profile_of(code) = JSON.parse(File.read(File.join(ROOT, "demo/engines/#{code.downcase}.engine.json")))

  def engine(code) = NimbleLedger::Profile::Engine.build(profile_of(code))

  def codes =
    Dir[File.join(ROOT, "demo/engines/*.engine.json")].map { |path| File.basename(path, ".engine.json").upcase }.sort

  def catalog = NimbleLedger::Parts::Catalog.build(JSON.parse(File.read(File.join(ROOT, "demo/merrow.catalog.json"))))

  def request(targets, **rest)
    { "format" => "nimble-ledger.estimate-request", "version" => 1, "engine" => {}, "targets" => targets }.merge(
      rest.transform_keys(&:to_s)
    )
  end

  EQUIPMENT = %w[two-post-lift strap-and-block thin-wall-socket swivel-extension coil-puller].freeze

  # The answer for targets on a shipped engine, in a shop that owns everything.
  def answer(code, targets, catalog: nil, **rest)
    NimbleLedger::Estimate::Answer.new(
      NimbleLedger::Estimate::Request.build(
        request(targets, equipment: EQUIPMENT, **rest),
        documents: NimbleLedger::Documents.new(engine: engine(code), catalog: catalog)
      )
    )
  end

  def quoted(code, targets, **rest) = answer(code, targets, **rest).plan.job.quoted_tenths / 10.0

  # Ids of an engine's targets for kinds of work on some cylinders.
  def targets(code, works, cylinders) =
    engine(code).targets.select { |t| Array(works).include?(t.work) && t.cylinders.intersect?(cylinders) }.map(&:id)

  # A sheet of the Quote page.
  def sheet(code, cylinders, works, catalog: nil, **rest)
    built = engine(code)
    selection = NimbleLedger::Quote::Selection.new(built, { "cylinders" => cylinders, "works" => works })
    NimbleLedger::Quote::Sheet.new(
      selection,
      request([], equipment: EQUIPMENT, **rest).except("targets"),
      engine: built,
      catalog: catalog
    )
  end
end
