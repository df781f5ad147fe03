# frozen_string_literal: true

module NimbleServer
  module Features
    module Engines
      # Patterns: how engines are built that a shop meets, without a name or figures of their own. They are drawn from
      # the engines that ship with the program (demo/patterns.json says which, and what each is called).
      class Patterns
        FOLDER = Demo::FOLDER
        NOTE =
          "Began as a pattern: its minutes are what such steps take elsewhere, examples until somebody has timed them."

        class << self
          # @return [Array<Hash>] see the contract, Patterns
          def list = titles.map { |code, title| row(all.fetch(code), title) }

          # A pattern as a profile of one's own.
          # @param given [Hash] see the contract, BeginDraft
          # @param kinds [NimbleLedger::Workshop::UsualTimes]
          # @return [Hash] the profile
          # @raise [Refusal] 404 for no such pattern
          def copy(given, kinds:)
            raise Refusal.not_found("pattern") unless titles.key?(given["pattern"])

            code, name = given.values_at("code", "name").map(&:strip)
            made = NimbleLedger::Workshop::Pattern.of(all.fetch(given["pattern"]), kinds: kinds, code: code, name: name)
            made.merge("notes" => NOTE)
          end

          # @return [Array<Hash>] every profile that ships with the program
          def shipped = all.values

          private

          def titles = @titles ||= JSON.parse(File.read(File.join(FOLDER, "patterns.json"))).freeze

          def all
            @all ||=
              Dir[File.join(FOLDER, "engines", "*.engine.json")]
                .sort
                .map { |path| JSON.parse(File.read(path)) }
                .to_h { |source| [source["code"], source] }
                .freeze
          end

          def row(source, title)
            {
              "code" => source["code"],
              "name" => title,
              "arrangement" => source["arrangement"],
              "mounting" => source["mounting"].to_s,
              "cylinders" => source["cylinders"].size,
              "ignition" => source["ignition"],
              "layers" => source["steps"].reject { |step| step["cylinder"] }.map { |step| step["label"] }.first(8)
            }
          end
        end
      end
    end
  end
end
