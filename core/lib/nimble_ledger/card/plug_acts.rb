# frozen_string_literal: true

module NimbleLedger
  module Card
    # What is done to the plugs of a piece, act by act, and which plugs they are (model.md section 15, 5): the plug's
    # own work, or the step that takes it out.
    class PlugActs
      # What rules 1 and 2 do at a plug's work.
      OWN_WORK = %w[clean out read in tighten].freeze

      # @param job [Job]
      # @param acts [Hash{String=>Array<String>}] Time::OrderOfWork#acts
      def initialize(job, acts)
        @job = job
        @acts = acts
        freeze
      end

      # @param piece [Time::Sequence::Piece]
      # @return [Hash] acts, plugs; empty where the piece touches no plug
      def of(piece)
        acts = acts_of(piece)
        plugs = plugs_of(piece)
        return {} if acts.empty? || plugs.empty?

        {
          "acts" => acts.map { |act| { "act" => act, "does" => words(act) } },
          "plugs" => plugs.map { |target| plug(target) }
        }
      end

      # Plugs a piece is about, as targets of the engine.
      # @return [Array<Profile::Target>]
      def plugs_of(piece)
        return [engine.target(piece.ref)].select { |target| target&.plug? } if piece.kind == "work"
        return [] unless %w[remove refit].include?(piece.kind) && engine.step(piece.ref)&.takes_out_plug?

        own = @job.targets.select { |target| target.plug? && @job.plan.chains.fetch(target).include?(piece.ref) }
        own.empty? ? at(engine.step(piece.ref)) : own
      end

      private

      def engine = @job.car.engine

      # A plug that only makes room: it goes back in as it came out.
      def at(step) = engine.targets.select { |target| target.plug? && target.cylinders.include?(step.cylinder) }

      def acts_of(piece)
        return @acts.fetch(piece.id, []) if @job.car.rules.order_of_work?

        piece.kind == "work" && engine.target(piece.ref)&.plug? ? OWN_WORK : []
      end

      def plug(target)
        { "target" => target.id, "count" => target.plugs, "renewed" => @job.targets.include?(target) }
      end

      def words(act)
        Words::ACTS.fetch(act) +
          case act
          when "clean"
            [Words::CLEAN.fetch(house["wells"]).last]
          when "out"
            by_school
          when "dry"
            @job.targets.none?(&:crank?) ? [Words::EMPTIED] : []
          else
            []
          end
      end

      # What the house's schools say of a plug coming out; blows only after a soak.
      def by_school
        dry = @job.power_tools == "after-soak" && !@job.plan.soaked_together?
        galls = Words::GALLS if House::Precedence.galls?(house["chirp"], engine)
        [(Words::POWER[@job.power_tools] unless dry), galls].compact
      end

      def house = @job.car.house
    end
  end
end
