# frozen_string_literal: true

module NimbleLedger
  module Profile
    # An engine profile that cannot be built wrong (model.md section 1, formats.md "Engine profile").
    #
    #   engine = Profile::Engine.build(hash)
    #   engine.step("upper-manifold").remove.mean  #=> minutes
    class Engine
      Cylinder = Struct.new(:number, :bank, :position)
      Coil = Struct.new(:id, :part, :cylinders)

      # How many variants of one engine are kept made: a garage has few, one profile may have thousands of millions.
      VARIANTS_KEPT = 16

      attr_reader :variants,
                  :code,
                  :name,
                  :notes,
                  :arrangement,
                  :mounting,
                  :head,
                  :ignition,
                  :aspiration,
                  :injection,
                  :cylinders,
                  :coils,
                  :steps,
                  :targets,
                  :soaks,
                  :thermal_mass,
                  :house_overrides,
                  :warnings,
                  :source,
                  :equipment,
                  :kept

      # @param hash [Hash] parsed JSON with string keys
      # @param path [String] prefix of the paths in errors ("/engine" when it stands inside a request)
      # @raise [InvalidInput] invalid_profile, with every fault's path
      def self.build(hash, path: "")
        SHAPE.check!(hash, what: "engine profile", code: "invalid_profile", path: path)
        shaped(hash, path: path)
      end

      # The same of a profile that is known to fit the shape.
      def self.shaped(hash, path: "")
        checks = Checks.new(hash)
        found = checks.run.map { |fault| fault.merge("path" => path + fault["path"]) }
        return new(hash, checks.warnings) if found.empty?

        raise InvalidInput.new(
                "The engine profile has #{found.size == 1 ? "a fault" : "#{found.size} faults"}: " \
                  "#{found.first["path"]} #{found.first["message"]}",
                code: "invalid_profile",
                details: found
              )
      end

      # A profile that was made here from a checked one and is not to be checked again.
      # @param hash [Hash]
      # @return [Engine]
      def self.made_of(hash) = new(hash, [])

      # @param written [Hash] the profile as it was written, where this is one of its variants
      def initialize(hash, warnings, written: hash)
        @source = written
        @warnings = warnings
        @code, @name, @arrangement, @head, @ignition = hash.values_at("code", "name", "arrangement", "head", "ignition")
        @notes = hash["notes"].to_s
        @provisional = hash["provisional"] || false
        @aspiration, @injection = hash.values_at("aspiration", "injection")
        @plug = hash["plug"]
        read_layout(hash)
        read_work(hash)
        read_options(hash)
        @built = {}
        @kept = ProfileCache.new
        @making = Mutex.new
        freeze
      end
      private_class_method :new

      # The engine as the answers to its variants make it; the sets of answers last asked for are kept made.
      # @param in_force [Hash] every answer, see Variants#resolve
      # @return [Engine]
      def variant(in_force)
        return self if variants.questions.empty?

        @making.synchronize do
          made = @built.delete(in_force) || build_as(in_force)
          @built.shift if @built.size >= VARIANTS_KEPT
          @built[in_force] = made
        end
      end

      # The engine with another plug to go in; all the rest of what the profile says of its plug stays.
      # @param part [String]
      # @return [Engine]
      def with_plug(part) =
        kept.of(:with_plug, part) do
          Engine.send(:new, source.merge("plug" => source["plug"].merge("part" => part)), warnings)
        end

      # The engine whose work at these targets is a way there and nothing at its end (model.md section 16, "Tried").
      # @param ids [Array<String>] of targets
      # @return [Engine]
      def opened_for(ids)
        return self if ids.empty?

        kept.of(:opened_for, ids.sort) do
          targets = source["targets"].map { |target| ids.include?(target["id"]) ? Target.opened(target) : target }
          Engine.made_of(source.merge("targets" => targets))
        end
      end

      # The engine with a target for each of these that is what was opened for it and nothing at its end: that goes back
      # on, and it stays as it is.
      # @param opened [Hash{String=>Array<String>}] target id to ids of steps that were taken off for it
      # @return [Engine]
      def with_left(opened)
        return self if opened.empty?

        kept.of(:with_left, opened) do
          found = source["targets"].select { |target| opened.key?(target["id"]) }
          left = found.map { |target| Target.left(target, opened.fetch(target["id"])) }
          Engine.made_of(source.merge("targets" => source["targets"] + left))
        end
      end

      # Whether it is only sketched: whatever shows figures of it says so.
      def provisional? = @provisional

      # The engine with the usual answer to everything.
      def usual = variant(variants.resolve(nil).in_force)

      # The profile as a file for people: keys in the order of formats.md, nothing added, nothing lost.
      # @return [Hash]
      def document = SHAPE.ordered(source)

      # @return [Step, nil]
      def step(id) = @step_by_id[id]

      # @return [Target, nil]
      def target(id) = @target_by_id[id]

      # One field of the profile's `plug`, nil when the profile is silent.
      def plug(field) = @plug[field]

      # @return [Hash] all it says of it
      def plugs = @plug

      # What it says of the plug at one place: the target's own figures before the engine's. An own torque is a figure
      # of its own, not a range.
      # @param target [Target, nil]
      # @return [Hash]
      def plug_at(target)
        own = target ? target.own_plug : {}
        base = own.key?("torque_nm") ? plugs.except("torque_range_nm") : plugs
        base.merge(own)
      end

      def plugs_per_cylinder = (@plug["per_cylinder"] || 1).to_i

      def hot_valley? = @hot_valley
      # "forbidden", "film", or nil where the profile is silent.
      attr_reader :boot_grease

      # Coils a coil target replaces: its own `coil`, else every coil that feeds one of its cylinders.
      def coils_for(target)
        return @coils.select { |coil| coil.id == target.coil } if target.coil

        @coils.select { |coil| coil.cylinders.intersect?(target.cylinders) }
      end

      private

      def build_as(in_force) =
        variants
          .reduce(source, in_force)
          .then { |hash| hash.equal?(source) ? self : Engine.send(:new, hash, warnings, written: source) }

      # Where the cylinders stand and which coil feeds which.
      def read_layout(hash)
        @cylinders = hash["cylinders"].map { |c| Cylinder.new(c["number"].to_i, c["bank"], c["position"].to_i).freeze }
        sideways = @cylinders.any? { |c| %w[front rear].include?(c.bank) }
        @mounting = hash["mounting"] || (sideways ? "sideways" : "lengthwise")
        @coils = (hash["coils"] || []).map { |c| Coil.new(c["id"], c["part"], c["cylinders"].map(&:to_i)).freeze }
      end

      # What comes off, and what is done.
      def read_work(hash)
        @steps = hash["steps"].each_with_index.map { |step, i| Step.new(step, i) }
        @targets = hash["targets"].each_with_index.map { |target, i| Target.new(target, i, plugs_per_cylinder) }
        @equipment = (@steps + @steps.flat_map(&:closing) + @targets.flat_map(&:ways)).flat_map(&:needs).uniq
        @step_by_id = @steps.to_h { |step| [step.id, step] }
        @target_by_id = @targets.to_h { |target| [target.id, target] }
      end

      def read_options(hash)
        @hot_valley = hash["hot_valley"] || false
        @variants = Variants.new(hash["variants"])
        @soaks = hash["soaks"] || SOAKS
        @thermal_mass = hash["thermal_mass"] || "medium"
        @boot_grease = hash["boot_grease"]
        @house_overrides = hash["house_overrides"] || {}
      end
    end
  end
end
