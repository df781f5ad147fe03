# frozen_string_literal: true

module NimbleLedger
  module Card
    # What the card shows of a job before anybody touched the car: its pieces in the order they are done, each with
    # tool, fasteners, torque, cautions, parts and what is ticked off, and the schools in force (model.md sections 10
    # and 15, domain.md). Frozen with the job: the bay works from this, whatever is edited later.
    class Sheet
      # @param job [Job]
      def initialize(job)
        @job = job
        @plan = job.plan
        @engine = job.car.engine
        @house = job.car.house
        @compound = Parts::Compound.used?(@engine, @house)
        freeze
      end

      # @return [Hash] see the contract, CardSheet
      def to_h
        picture = Picture::Descent.new(@plan)
        {
          "engine" => ["#{@engine.code}, #{@engine.name}", ("provisional" if @engine.provisional?)].compact.join(", "),
          "targets" => @job.targets.map(&:id),
          "pieces" => pieces(picture),
          "levels" => picture.levels,
          "length_minutes" => picture.length,
          "schools" => schools,
          "shelf" => shelf,
          "arrangement" => @engine.arrangement,
          "cylinders" => @engine.cylinders.map(&:number),
          "gap_believed_mm" => {
            "low" => Bench::Gap::SUM.begin,
            "high" => Bench::Gap::SUM.end
          },
          "cure_minutes" => @house["cure_minutes"],
          "plugs" => plugs
        }
      end

      # @return [Array<HandsOn::Piece>]
      def timed = unique.map { |id, piece| HandsOn::Piece.new(id, piece.clock_minutes, piece.waiting?) }

      private

      # Pieces with an id of their own each: closing work of one step shares one by its name.
      # @return [Array<Array(String, Time::Sequence::Piece)>]
      def unique
        seen = Hash.new(0)
        @plan.sequence.pieces.map do |piece|
          count = seen[piece.id] += 1
          [count == 1 ? piece.id : "#{piece.id}:#{count}", piece]
        end
      end

      def pieces(picture) = unique.map { |id, piece| row(id, piece, picture) }

      def row(id, piece, picture)
        {
          "id" => id,
          "kind" => piece.kind,
          "ref" => piece.ref,
          "label" => label(piece),
          "cylinder" => piece.cylinder,
          "minutes" => piece.clock_minutes,
          "people" => piece.people,
          "waiting" => piece.waiting?,
          "holds_bay" => piece.holds_bay,
          "depth" => depth(piece, picture)
        }.merge(details(piece))
      end

      def label(piece) = (%w[remove refit].include?(piece.kind) && @engine.step(piece.ref)&.label) || piece.label

      def depth(piece, picture)
        return 0 if Picture::Descent::ABOVE.include?(piece.kind)

        step = @engine.step(piece.ref) if %w[remove refit].include?(piece.kind)
        step ? picture.depth_of(step) : picture.levels
      end

      def details(piece)
        case piece.kind
        when "remove", "refit"
          PieceOfStep.new(@engine.step(piece.ref), piece.kind, @engine, @job.car).to_h
        when "work"
          PieceOfTarget.new(@engine.target(piece.ref), @job, @compound).to_h
        else
          {}
        end
      end

      def schools
        {
          "compound" => @compound ? "film" : "none",
          "temperature" => "cold",
          "grease" => @house["boot_grease"],
          "order" => @plan.order_of_work,
          "tighten" => @engine.plug("tighten") || "torque",
          "soak" => @plan.soak
        }
      end

      def shelf
        trouble = Risk::Trouble.for(@job) or return []
        trouble.on_the_shelf.map { |what, quantity| { "what" => what, "quantity" => quantity } }
      end

      # Plugs of the job in engine order, bank by bank, as they are laid out to be read.
      def plugs
        order = @engine.cylinders.each_with_index.to_h { |cylinder, i| [cylinder.number, i] }
        found = @plan.targets.select(&:plug?).sort_by { |target| order.fetch(target.cylinders.first, 0) }
        found.flat_map do |target|
          (1..target.plugs).map do |nth|
            {
              "key" => Fold.plug_key(target.id, nth),
              "target" => target.id,
              "nth" => nth,
              "label" => target.label,
              "cylinder" => target.cylinders.first,
              "bank" => @engine.cylinders.find { |cylinder| cylinder.number == target.cylinders.first }&.bank
            }
          end
        end
      end
    end
  end
end
