# frozen_string_literal: true

require_relative "../../core/lib/nimble_ledger"

# Reads a request and the files it names, and prints what the core says. Exit 0; bad input prints the error object, exit
# 2; an impossible plan, exit 3. Needs Ruby only: no gems, no database.
class AnswerCommand
  REQUEST_BYTES = 8_000_000

  # The one gem an order needs, where bin/start or bin/test has installed it: found without bundler, loaded when asked.
  $LOAD_PATH.concat(Dir[File.expand_path("../../vendor/bundle/ruby/*/gems/highs-*/lib", __dir__)])

  # Engines and catalogs named by a path relative to the request file.
  class Files < NimbleLedger::Documents
    def initialize(folder)
      super()
      @folder = folder
    end

    private

    def named(name, path, kind)
      yield(
        NimbleLedger::Document.parse(
          AnswerCommand.read(File.expand_path(name, @folder), NimbleLedger::Document::MAX_BYTES, path),
          what: kind
        )
      )
    rescue NimbleLedger::InvalidInput => e
      raise NimbleLedger::InvalidInput.new(
              "#{File.basename(name)}: #{e.message}",
              code: e.code,
              details: e.details.map { |detail| detail.merge("file" => name) }
            )
    end
  end

  # @param usage [String]
  # @param only [#build, nil] the one kind of request this command takes
  def initialize(usage, only: nil)
    @usage = usage
    @only = only
  end

  # @return [Integer] exit code
  def run(argument)
    unless argument
      warn "Usage: #{@usage}"
      return 2
    end
    puts JSON.pretty_generate(answer(argument))
    0
  rescue NimbleLedger::Error => e
    puts JSON.pretty_generate(e.to_h)
    e.is_a?(NimbleLedger::ImpossiblePlan) ? 3 : 2
  end

  def self.read(path, limit, pointer)
    text = path == "-" ? $stdin.binmode.read(limit + 1) : File.open(path, "rb") { |file| file.read(limit + 1) }
    text || ""
  rescue SystemCallError, ArgumentError
    message = "cannot be read: #{File.basename(path.delete("\0"))}"
    raise NimbleLedger::InvalidInput.new(
            "The file #{message}.",
            code: "unreadable_file",
            details: [{ "path" => pointer, "message" => message }]
          )
  end

  private

  def answer(argument)
    folder = argument == "-" ? Dir.pwd : File.dirname(File.expand_path(argument))
    hash =
      NimbleLedger::Document.parse(
        AnswerCommand.read(argument, REQUEST_BYTES, ""),
        what: "request",
        max_bytes: REQUEST_BYTES
      )
    documents = Files.new(folder)
    @only ? @only.build(hash, documents: documents).answer : NimbleLedger::Answers.to(hash, documents: documents)
  end
end
