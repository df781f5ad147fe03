# frozen_string_literal: true

# The map of the program, drawn from its code: folders in the order they may read each other, the first sentence of
# each file, which feature mentions which.
class Architecture
  ROOT = File.expand_path("../..", __dir__)
  CORE = "core/lib/nimble_ledger"
  FEATURES = "server/lib/nimble_server/features"

  # What each folder is for, in a line.
  CORE_PURPOSE = {
    "access" => "What comes off, in which order, by which way: the least plan, proved.",
    "bench" => "Gap, torque, angle, interval, grade: what a technician asks at the bench.",
    "bill" => "What is billed of what was agreed, and never more than was allowed.",
    "card" => "The bay card: what it shows, what is marked on it, how it stands.",
    "day" => "When? A shop's board played through: chances, offers, moves, pace.",
    "estimate" => "An estimate request and its answer.",
    "house" => "Every figure a shop may set, and whose word holds.",
    "ledger" => "Learning from what happened: effects, odds, calibration, what several shops share.",
    "library" => "Engines a shop knows, and what an import would change.",
    "parts" => "What a job needs, what is bought for it, kits or singles, boots and consumables.",
    "picture" => "Drawings as data: reach from above, descent in time, hours as a range.",
    "practice" => "Made-up cars to practise on, and how it went.",
    "price" => "Lines, markup, discount, taxes, diagnosis.",
    "profile" => "The engine profile: its shape, its values, what makes one sound.",
    "quote" => "One quote as its page shows it: scopes, explanation, routes, what the months bring.",
    "record" => "What was said: acts in a chain, seals, limits, where an offer stands.",
    "risk" => "What may go wrong, with its chance: plugs, mishaps, soaks, live odds, allowance.",
    "scope" => "Which scope: comebacks, life of parts, scheduled changes, the recommendation.",
    "shape" => "What a JSON value must look like, once, with a path for each fault.",
    "slots" => "Ready time without a board: opening hours, cooling, waits.",
    "time" => "Tasks, hours, quoted hours, and the job as pieces in the order of the work.",
    "trace" => "Finding the fault: suspects, evidence, the next test, guess or know.",
    "vehicle" => "A car apart from its engine: number, odometer, warranty, when it is due again.",
    "workshop" => "Entering engines: layers, patterns, sketches, usual times."
  }.freeze

  # @param check [Boolean] whether files are only compared
  # @return [Integer] the exit status
  def run(check: false)
    stale = documents.reject { |path, text| current(path) == text }
    return say("The map is as the code has it.", 0) if stale.empty?
    return say("Not as the code has it (run bin/architecture): #{stale.keys.join(", ")}", 1) if check

    stale.each { |path, text| File.write(File.join(ROOT, path), text) }
    say("Wrote #{stale.size} files.", 0)
  end

  # @return [Hash{String=>String}] path to what stands there
  def documents
    folders = core_folders.to_h { |name| ["#{CORE}/#{name}/README.md", folder(CORE, name, "Folder of the core")] }
    features = feature_folders.to_h { |name| ["#{FEATURES}/#{name}/README.md", folder(FEATURES, name, "Feature")] }
    { "docs/architecture.md" => overview, "docs/architecture.svg" => picture }.merge(folders, features)
  end

  private

  def say(text, status)
    puts text
    status
  end

  def current(path) = File.exist?(File.join(ROOT, path)) ? File.read(File.join(ROOT, path)) : nil
  def core_folders = Dir.children("#{ROOT}/#{CORE}").select { |name| File.directory?("#{ROOT}/#{CORE}/#{name}") }.sort
  def feature_folders = Dir.children("#{ROOT}/#{FEATURES}").sort
  def files(base, name) = Dir["#{ROOT}/#{base}/#{name}/*.rb"].sort

  def folder(base, name, kind)
    rows =
      (files(base, name) - ["#{ROOT}/#{base}/#{name}/feature.rb"]).map do |path|
        "| `#{File.basename(path)}` | #{sentence(path)} |"
      end
    <<~TEXT
      # #{name.tr("_", " ")}

      #{kind}. #{purpose(base, name)}

      | file | what it is |
      |---|---|
      #{rows.join("\n")}

      #{reads(base, name)}Written by `bin/architecture`.
    TEXT
  end

  def purpose(base, name) = base == CORE ? CORE_PURPOSE.fetch(name) : sentence("#{ROOT}/#{base}/#{name}/feature.rb")

  def reads(base, name)
    other = mentioned(base, name)
    other.empty? ? "Reads no other folder. " : "Reads: #{other.map { |one| one.tr("_", " ") }.join(", ")}. "
  end

  # The first sentence of a file's comment.
  def sentence(path)
    lines = File.readlines(path, chomp: true).drop(1)
    comment = lines.drop_while { |line| !line.match?(/^\s+# /) }.take_while { |line| line.match?(/^\s+#( |$)/) }
    text = comment.map { |line| line.sub(/^\s+# ?/, "") }.take_while { |line| !line.empty? }.join(" ")
    first_of(text).gsub("|", "\\|")
  end

  # A name alone says nothing yet.
  SHORTEST = 24

  # Up to the first full stop that stands in no parenthesis.
  def first_of(text)
    open = 0
    text.each_char.with_index do |char, i|
      open += { "(" => 1, ")" => -1 }.fetch(char, 0)
      return text[0..i] if i > SHORTEST && char == "." && open.zero? && [nil, " "].include?(text[i + 1])
    end
    text
  end

  # Other folders of the same kind that the code of one mentions.
  def mentioned(base, name)
    known = base == CORE ? core_folders : feature_folders
    names = known.to_h { |one| [one.split("_").map(&:capitalize).join, one] }
    code = files(base, name).map { |path| File.read(path).gsub(/#.*$/, "") }.join("\n")
    names.select { |const, one| one != name && code.match?(/(?<![A-Za-z])#{const}::[A-Z]/) }.values
  end

  # Folders of the core by how deep they stand: each reads only those above it.
  def layers
    left = core_folders.to_h { |name| [name, mentioned(CORE, name)] }
    rows = []
    until left.empty?
      row = left.select { |_name, reads| (reads & left.keys).empty? }.keys
      row = [left.min_by { |_name, reads| (reads & left.keys).size }.first] if row.empty?
      rows << row
      row.each { |name| left.delete(name) }
    end
    rows
  end

  def overview
    core = core_folders.map { |name| row(CORE, name) }
    features = feature_folders.map { |name| row(FEATURES, name) }
    <<~TEXT
      # How the program is built

      Written by `bin/architecture` from the code; what each folder is for stands in `bin/support/architecture.rb`
      and in each feature's `feature.rb`, which the server executes (`server/lib/nimble_server/feature.rb`).

      - **`core/`** computes: all rules of the job, no interface, no database. [docs/model.md](model.md) says which file holds which rule.
      - **`server/`** keeps and serves: PostgreSQL through Sequel, one folder for each feature, a stack of Rack middleware before them ([docs/server.md](server.md)).
      - **`formats/`** is what others rely on: shapes of requests and answers, the contract of the API, worked examples.
      - **`web/`** shows: React, one folder for each screen; types come from the contract.

      Each folder of the core reads only those above it (`core/spec/direction_spec.rb` holds it):

      ![The core, from values to pages](architecture.svg)

      ## The core
      | folder | what it is for | reads |
      |---|---|---|
      #{core.join("\n")}

      ## Features of the server
      | feature | what it is for | reads |
      |---|---|---|
      #{features.join("\n")}
    TEXT
  end

  def row(base, name)
    reads = mentioned(base, name).map { |one| one.tr("_", " ") }.join(", ")
    "| [#{name.tr("_", " ")}](../#{base}/#{name}/) | #{purpose(base, name)} | #{reads} |"
  end

  WIDTH = 760
  HIGH = 44

  def picture
    rows = layers
    boxes = rows.each_with_index.flat_map { |row, i| boxes(row, i) }
    height = (rows.size * HIGH) + 12
    <<~SVG
      <svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 #{WIDTH} #{height}" font-family="sans-serif" font-size="14">
      <rect width="#{WIDTH}" height="#{height}" fill="#f1f4ec"/>
      #{boxes.join("\n")}
      </svg>
    SVG
  end

  def boxes(row, at)
    wide = (WIDTH - 12) / row.size.to_f
    row.each_with_index.map do |name, i|
      left = 12 + (i * wide)
      place = "x=\"#{left.round(1)}\" y=\"#{12 + (at * HIGH)}\""
      "<rect #{place} width=\"#{(wide - 12).round(1)}\" height=\"#{HIGH - 12}\" " \
        "rx=\"6\" fill=\"#fbfcf8\" stroke=\"#14263a\"/><text x=\"#{(left + ((wide - 12) / 2)).round(1)}\" " \
        "y=\"#{33 + (at * HIGH)}\" text-anchor=\"middle\" fill=\"#14263a\">#{name}</text>"
    end
  end
end
