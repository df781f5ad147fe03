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
        @sequence = @plan.sequence
        @acts = PlugActs.new(job, @sequence.acts)
        @wires = Wires.new(@engine, job.car.catalog)
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
          "in_force" => in_force,
          "shelf" => shelf,
          "arrangement" => @engine.arrangement,
          "cylinders" => @engine.cylinders.map(&:number),
          "gap_believed_mm" => {
            "low" => Bench::Gap::SUM.begin,
            "high" => Bench::Gap::SUM.end
          },
          "cure_minutes" => @house["cure_minutes"],
          "plugs" => plugs,
          "lay_out" => LayOut.new(@job).to_h,
          "by_hand" => @job.lines.map(&:to_h),
          "wires" => @wires.rows,
          "opening_hours" => @house["opening_hours"]
        }
      end

      # @return [Array<HandsOn::Piece>]
      def timed = named_pieces.map { |id, piece| HandsOn::Piece.new(id, piece.clock_minutes, piece.waiting?) }

      # Pieces with an id of their own each: closing work of one step shares one by its name.
      # @return [Array<Array(String, Time::Sequence::Piece)>]
      def named_pieces
        seen = Hash.new(0)
        @sequence.pieces.map do |piece|
          count = seen[piece.id] += 1
          [count == 1 ? piece.id : "#{piece.id}:#{count}", piece]
        end
      end

      private

      def pieces(picture) = named_pieces.map { |id, piece| row(id, piece, picture) }

      def row(id, piece, picture)
        named = details(piece)
        {
          "id" => id,
          "kind" => piece.kind,
          "ref" => piece.ref,
          "label" => label(piece),
          "title" => named["label"] || title(piece),
          "cylinder" => piece.cylinder,
          "minutes" => piece.clock_minutes,
          "people" => piece.people,
          "waiting" => piece.waiting?,
          "holds_bay" => piece.holds_bay,
          "depth" => depth(piece, picture)
        }.merge(named, @acts.of(piece))
      end

      def label(piece) = (%w[remove refit again].include?(piece.kind) && @engine.step(piece.ref)&.label) || piece.label

      # What is done with it, as a heading: "Upper intake manifold, off".
      def title(piece)
        act = act(piece)
        name = plug_step?(piece) ? @acts.plugs_of(piece).map(&:label).join(", ") : label(piece)
        act ? format(Words::TITLES.fetch(act), name: name) : name
      end

      def act(piece)
        case piece.kind
        when "remove"
          plug_step?(piece) ? :out : by_label(piece, :done, :off)
        when "refit"
          plug_step?(piece) ? :in : by_label(piece, :undone, :on)
        when "again"
          :again
        when "work"
          { "out" => :out, "in" => :in }[Time::PieceId.read(piece.id).act] || (:ready if made_ready?(piece))
        end
      end

      def by_label(piece, yes, no) = label(piece).match?(Words::SAYS_WHAT_IS_DONE) ? yes : no

      def plug_step?(piece) = %w[remove refit].include?(piece.kind) && @acts.plugs_of(piece).any?

      # A plug's own work beside the step that takes it out and brings it in.
      def made_ready?(piece) =
        @job.car.rules.order_of_work? && @engine.target(piece.ref).plug? && !@sequence.acts.key?(piece.id)

      def depth(piece, picture)
        return 0 if Picture::Descent::ABOVE.include?(piece.kind)

        step = @engine.step(piece.ref) if %w[remove refit].include?(piece.kind)
        step ? picture.depth_of(step) : picture.levels
      end

      def details(piece)
        case piece.kind
        when "remove", "refit"
          step = PieceOfStep.new(@engine.step(piece.ref), piece.kind, @job, @wires).to_h
          plug_of(piece).merge(step) { |_, plug, own| own.is_a?(Array) ? (own + plug).uniq : own }
        when "work"
          work(piece)
        else
          PieceOfHouse.new(piece, @job).to_h
        end
      end

      # A plug that is worked at two moments: tools and cautions when it comes out, part and torque when it goes in.
      def work(piece)
        whole = PieceOfTarget.new(@engine.target(piece.ref), @job).to_h
        return whole.slice("work", "parts").merge("does" => [new_ready(whole["plug"])]) if made_ready?(piece)

        case Time::PieceId.read(piece.id).act
        when "out"
          whole.except("parts")
        when "in"
          whole.except("cautions")
        else
          whole
        end
      end

      def new_ready(plug)
        gap = plug && plug["gap_mm"]
        said = gap ? format(Words::GAP, low: gap["low"], high: gap["high"]) : ""
        format(Words::NEW_READY, gap: said)
      end

      # What the plug asks for that a step takes out: its socket coming out, its gap and torque going in.
      def plug_of(piece)
        target = @acts.plugs_of(piece).first or return {}
        PieceOfTarget.new(target, @job).to_h.slice("plug", *(piece.kind == "remove" ? %w[with cautions] : %w[with]))
      end

      def schools
        {
          "compound" => @compound ? "film" : "none",
          "temperature" => @plan.cracked_warm? ? "crack-warm" : "cold",
          "gap" => @house["gap_check"],
          "grease" => @house["boot_grease"],
          "order" => @plan.order_of_work,
          "tighten" => @engine.plug("tighten") || "torque",
          "soak" => @plan.soak
        }
      end

      # The house's schools for this work, each with one line why.
      def in_force
        about = @job.targets.any?(&:plug?) ? %w[plugs] : []
        House::Schools
          .in_force(as_done, of: about, at_work: true)
          .map { |one| { "setting" => one.setting, "question" => one.question, "says" => one.says, "why" => one.why } }
      end

      # The house's figures as they come out on this job.
      def as_done = @house.with({ "compound" => @compound ? "film" : "none", "power_tools" => @job.power_tools })

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
