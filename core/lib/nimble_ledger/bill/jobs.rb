# frozen_string_literal: true

module NimbleLedger
  module Bill
    # What was agreed as one job, and what was done of it (model.md section 16): all is what is in force but what we
    # owe;
    # done is all less what was not done. What was tried (opened for, and stopped) is in done by the steps on its way
    # alone.
    class Jobs
      attr_reader :car, :all, :done

      # @param hash [Hash] estimate of a request
      # @param part [Estimate::CarPart]
      # @param all [Array<String>] ids
      # @param done [Array<String>] ids, those tried too
      # @param tried [Array<String>] ids
      def initialize(hash, part, all:, done:, tried:)
        @part = part
        @car = part.car
        @hash = hash
        @all = job(part, all)
        @tried = tried
        @done = job(tried.empty? ? part : part_without_work, done)
        freeze
      end

      # Whether trouble of this target is billed: of what was done or tried.
      # @param target [Profile::Target]
      def customers?(target) = !done.nil? && done.targets.any? { |one| one.id == target.id }

      # Pieces all needs more than done.
      # @return [Hash{String=>Integer}]
      def saved_pieces
        less = pieces(done, &:billed)
        pieces(all, &:billed).to_h { |part, count| [part, [count - less.fetch(part, 0), 0].max] }
      end

      # Pieces of done that may be needed.
      # @return [Hash{String=>Integer}]
      def if_needed(job = done) = pieces(job) { |needed| needed.rows.select { |row| row.rule == "if-needed" } }

      # Pieces on the lines of done.
      # @return [Hash{String=>Integer}]
      def on_lines
        lines = done ? done.price.list.select { |line| line.kind == "part" } : []
        lines.group_by(&:part).transform_values { |same| same.sum(&:quantity) }
      end

      private

      def pieces(job)
        return {} unless job

        yield(job.needed).group_by(&:part).transform_values { |rows| rows.sum(&:quantity) }
      end

      def job(part, ids) = ids.empty? ? nil : Estimate::Request.new(@hash, part, targets: ids, path: "/estimate").job

      # The same car, whose tried targets are a way and nothing at its end.
      def part_without_work
        engine = @part.written.opened_for(@tried)
        Estimate::CarPart.new(@hash, documents: Documents.new(engine: engine, catalog: car.catalog), path: "/estimate")
      end
    end
  end
end
