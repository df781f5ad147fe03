# frozen_string_literal: true

module NimbleLedger
  module Profile
    # Cars differ within one engine code: questions a profile asks, and the engine as the answers make it (model.md
    # section 1).
    #
    #   variants = Profile::Variants.new(hash["variants"])
    #   variants.resolve({ "tray" => "no" }).in_force   #=> {"tray" => "no"}
    class Variants
      Question = Struct.new(:id, :ask, :options, :usual)
      # in_force: every answer; assumed: those nobody gave.
      Answers = Struct.new(:in_force, :assumed)

      attr_reader :questions

      def initialize(list)
        @questions = (list || []).map { |row| Question.new(row["id"], row["ask"], row["options"], row["usual"]) }
        freeze
      end

      # @param given [Hash, nil] variant id to option id
      # @param path [String] where they stand
      # @return [Answers] the usual one where nothing was said
      # @raise [InvalidInput] for a question or an option the profile does not have
      def resolve(given, path: "/variants")
        faults = (given || {}).filter_map { |id, option| fault(id, option, path) }
        if faults.any?
          raise InvalidInput.new(
                  "The variants do not fit the engine: #{faults.first["message"]}.",
                  code: "invalid_request",
                  details: faults
                )
        end

        assumed =
          questions
            .reject { |question| (given || {}).key?(question.id) }
            .to_h { |question| [question.id, question.usual] }
        Answers.new((given || {}).merge(assumed), assumed)
      end

      # The profile as it is with these answers: steps that do not exist drop out of every `after`, `through` and `any`,
      # their own prerequisites with them; a choice left with one member is plain, with none it is gone.
      # @param source [Hash] profile as written
      # @param in_force [Hash] every answer
      # @return [Hash]
      def reduce(source, in_force)
        absent = source["steps"].reject { |step| exists?(step, in_force) }.map { |step| step["id"] }
        return source if absent.empty?

        steps =
          source["steps"]
            .reject { |step| absent.include?(step["id"]) }
            .map { |step| step.merge("after" => without(step["after"], absent)) }
        targets =
          source["targets"].map do |target|
            target.merge("ways" => target["ways"].map { |way| way.merge("through" => without(way["through"], absent)) })
          end
        source.merge("steps" => steps, "targets" => targets)
      end

      private

      def exists?(step, in_force) = (step["when"] || {}).all? { |id, options| options.include?(in_force[id]) }

      def without(entries, absent)
        (entries || []).filter_map do |entry|
          next(entry unless absent.include?(entry)) if entry.is_a?(String)

          left = entry["any"] - absent
          left.size > 1 ? { "any" => left } : left.first
        end
      end

      def fault(id, option, path)
        here = "#{path}/#{Shape.key(id)}"
        question = questions.find { |one| one.id == id }
        unless question
          return { "path" => here, "message" => "names variant #{id}, which the engine does not ask about" }
        end

        ids = question.options.map { |one| one["id"] }
        return if ids.include?(option)
        { "path" => here, "message" => "#{option} is no answer to #{id}; it takes #{ids.join(" or ")}" }
      end
    end
  end
end
