# frozen_string_literal: true

module NimbleServer
  module Features
    module Engines
      # The engine profiles that ship with the program: examples to copy under a code of one's own. Their times and
      # torques are examples, and the copy says so.
      class Patterns
        FOLDER = Demo::FOLDER
        NOTE = "Copied from a pattern: times and torques are examples until somebody has checked them."

        # @return [Array<Hash>] see the contract, Patterns
        def self.list = all.values.map { |source| row(source) }

        # A pattern as a profile of one's own.
        # @param given [Hash] see the contract, CopyPattern
        # @return [Hash] the profile
        # @raise [Refusal] 404 for no such pattern
        def self.copy(given)
          source = all[given["pattern"]] or raise Refusal.not_found("pattern")
          source.merge(
            "code" => given["code"].strip,
            "name" => given["name"].strip,
            "notes" => [NOTE, source["notes"]].compact.join(" ")
          )
        end

        def self.all
          @all ||=
            Dir[File.join(FOLDER, "engines", "*.engine.json")]
              .sort
              .map { |path| JSON.parse(File.read(path)) }
              .to_h { |source| [source["code"], source] }
              .freeze
        end
        private_class_method :all

        def self.row(source)
          engine = source.slice("code", "name", "arrangement", "ignition", "notes")
          engine.merge("mounting" => source["mounting"].to_s, "cylinders" => source["cylinders"].size)
        end
        private_class_method :row
      end
    end
  end
end
