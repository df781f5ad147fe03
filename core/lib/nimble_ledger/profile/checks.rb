# frozen_string_literal: true

module NimbleLedger
  module Profile
    # The rejections of formats.md that a shape alone cannot see: names that must exist and be unique, limits on
    # choices, cycles, cylinders without a plug. Works on the checked hash; adds faults with paths.
    class Checks
      attr_reader :warnings

      def initialize(hash)
        @hash = hash
        @faults = Shape::Faults.new
        @warnings = []
        @steps = hash["steps"]
        @targets = hash["targets"]
        @step_at = @steps.each_with_index.to_h { |step, i| [step["id"], i] }
        @numbers = hash["cylinders"].map { |cylinder| cylinder["number"].to_i }
      end

      # @return [Array<Hash>] faults, empty when the profile is sound
      def run
        unique_ids
        banks
        coils
        entries.each { |place| known_members(place.list, place.path) }
        limits
        cylinders_named
        plugs_per_cylinder
        variants
        closings
        torque_range
        PlugsOut.check(@targets, @faults)
        cycles if @faults.list.empty?
        loose_ends if @faults.list.empty?
        @faults.list
      end

      private

      def unique_ids
        repeated(@steps, "/steps", "id")
        repeated(@targets, "/targets", "id")
        repeated(@hash["coils"] || [], "/coils", "id")
        repeated(@hash["cylinders"], "/cylinders", "number")
        @targets.each_with_index { |target, i| repeated(target["ways"], "/targets/#{i}/ways", "id") }
      end

      def repeated(list, path, key)
        seen = {}
        list.each_with_index do |member, i|
          first = seen[member[key]]
          @faults.add("#{path}/#{i}/#{key}", "#{member[key]} is already used at #{path}/#{first}") if first
          seen[member[key]] ||= i
        end
      end

      def banks
        allowed = bank_names
        @hash["cylinders"].each_with_index do |cylinder, i|
          bank = cylinder["bank"]
          next if allowed.nil? || allowed.include?(bank)

          @faults.add(
            "/cylinders/#{i}/bank",
            "#{bank ? "#{bank} does not fit" : "is missing"}: use #{allowed.join(" or ")}"
          )
        end
      end

      def bank_names
        return nil unless %w[vee flat].include?(@hash["arrangement"])

        case @hash["mounting"]
        when "sideways"
          %w[front rear]
        when "lengthwise"
          %w[left right]
        else
          BANKS
        end
      end

      def coils
        (@hash["coils"] || []).each_with_index do |coil, i|
          coil["cylinders"].each_with_index { |number, j| cylinder_exists(number, "/coils/#{i}/cylinders/#{j}") }
        end
      end

      # A place that names steps: the list, where it stands, and the step that holds it (nil for a way).
      Place = Struct.new(:list, :path, :holder)

      # @return [Array<Place>]
      def entries
        @entries ||=
          @steps.each_with_index.map { |step, i| Place.new(step["after"] || [], "/steps/#{i}/after", step["id"]) } +
            @targets.each_with_index.flat_map do |target, i|
              target["ways"].each_with_index.map do |way, j|
                Place.new(way["through"] || [], "/targets/#{i}/ways/#{j}/through", nil)
              end
            end
      end

      def known_members(list, path)
        list.each_with_index do |entry, i|
          if entry.is_a?(Hash)
            entry["any"].each_with_index { |id, j| step_exists(id, "#{path}/#{i}/any/#{j}") }
          else
            step_exists(entry, "#{path}/#{i}")
          end
        end
      end

      def step_exists(id, path)
        @faults.add(path, "names step #{id}, which does not exist") unless @step_at.key?(id)
      end

      def cylinder_exists(number, path)
        @faults.add(path, "names cylinder #{number}, which does not exist") unless @numbers.include?(number)
      end

      def limits
        choices = entries.sum { |place| place.list.count { |entry| entry.is_a?(Hash) } }
        @faults.add("/steps", "holds #{choices} choices; at most #{MAX_CHOICES} are allowed") if choices > MAX_CHOICES
        several = @targets.count { |target| target["ways"].size > 1 }
        return unless several > MAX_TARGETS_WITH_WAYS

        @faults.add("/targets", "#{several} targets have several ways; at most #{MAX_TARGETS_WITH_WAYS} may")
      end

      def cylinders_named
        @steps.each_with_index do |step, i|
          cylinder_exists(step["cylinder"], "/steps/#{i}/cylinder") if step["cylinder"]
        end
        @targets.each_with_index { |target, i| target_cylinders(target, "/targets/#{i}") }
      end

      def target_cylinders(target, path)
        single = target["cylinder"]
        several = target["cylinders"]
        @faults.add("#{path}/cylinders", "stands beside cylinder; give one of the two") if single && several
        @faults.add("#{path}/cylinder", "is missing") unless single || several || target["work"] == "other"
        if target["work"] == "other" && !target["label"]
          @faults.add("#{path}/label", "is missing: other work needs a label")
        end
        cylinder_exists(single, "#{path}/cylinder") if single
        (several || []).each_with_index { |number, j| cylinder_exists(number, "#{path}/cylinders/#{j}") }
        coil_exists(target["coil"], "#{path}/coil") if target["coil"]
        return unless target["plug"] && target["work"] != "plug"
        @faults.add("#{path}/plug", "stands at #{target["work"]} work; only a plug target has a plug of its own")
      end

      def coil_exists(id, path)
        return if (@hash["coils"] || []).any? { |coil| coil["id"] == id }

        @faults.add(path, "names coil #{id}, which does not exist")
      end

      def plugs_per_cylinder
        per_cylinder = (@hash["plug"]["per_cylinder"] || 1).to_i
        @numbers.each_with_index do |number, i|
          at = @targets.each_index.select { |t| plug_target_for?(@targets[t], number) }
          next @faults.add("/cylinders/#{i}", "cylinder #{number} has no plug target") if at.empty?
          next if at.any? { |t| @targets[t]["cylinders"] }

          sum = at.sum { |t| (@targets[t]["plugs"] || per_cylinder).to_i }
          next if sum == per_cylinder

          @faults.add(
            "/targets/#{at.first}",
            "plug targets of cylinder #{number} hold #{sum} plugs; the engine has #{per_cylinder} a cylinder"
          )
        end
      end

      # Questions with options that are told apart, a usual answer among them, and steps that name both.
      def variants
        list = @hash["variants"] || []
        repeated(list, "/variants", "id")
        list.each_with_index do |variant, i|
          repeated(variant["options"], "/variants/#{i}/options", "id")
          ids = variant["options"].map { |option| option["id"] }
          unless ids.include?(variant["usual"])
            @faults.add("/variants/#{i}/usual", "#{variant["usual"]} is none of its options: #{ids.join(", ")}")
          end
        end
        @steps.each_with_index do |step, i|
          (step["when"] || {}).each do |id, options|
            known_answers(list, id, options, "/steps/#{i}/when/#{Shape.key(id)}")
          end
        end
      end

      def known_answers(list, id, options, path)
        variant = list.find { |one| one["id"] == id }
        return @faults.add(path, "names variant #{id}, which does not exist") unless variant

        unknown = options - variant["options"].map { |option| option["id"] }
        @faults.add(path, "#{unknown.first} is no option of #{id}") if unknown.any?
      end

      # Without its tool, closing work never takes less.
      def closings
        @steps.each_with_index do |step, i|
          (step["closing"] || []).each_with_index do |task, j|
            next unless task["without"]&.zip(task["minutes"])&.any? { |without, with| without < with }

            @faults.add(
              "/steps/#{i}/closing/#{j}/without",
              "is below minutes at some point: without the tool it cannot take less"
            )
          end
        end
      end

      def torque_range
        low, high = @hash["plug"]["torque_range_nm"]
        @faults.add("/plug/torque_range_nm", "low (#{low}) is above high (#{high})") if low && low > high
      end

      def plug_target_for?(target, number)
        target["work"] == "plug" && (target["cylinder"] == number || (target["cylinders"] || []).include?(number))
      end

      # Depth-first over plain prerequisites and every member of every choice; the cycle is named.
      def cycles
        state = {}
        @steps.each { |step| return nil if state[step["id"]].nil? && cycle_from(step["id"], [], state) }
      end

      def cycle_from(id, trail, state)
        state[id] = :open
        trail.push(id)
        prerequisites(id).each do |before, path|
          return name_cycle(trail, before, path) if state[before] == :open
          return true if state[before].nil? && cycle_from(before, trail, state)
        end
        trail.pop
        state[id] = :done
        false
      end

      def name_cycle(trail, before, path)
        loop_ids = trail[trail.index(before)..] + [before]
        @faults.add(path, "closes a circle: #{loop_ids.join(" → ")} (each waits for the next)")
        true
      end

      def prerequisites(id)
        at = @step_at[id]
        (@steps[at]["after"] || []).each_with_index.flat_map do |entry, i|
          path = "/steps/#{at}/after/#{i}"
          next [[entry, path]] unless entry.is_a?(Hash)

          entry["any"].each_with_index.map { |member, j| [member, "#{path}/any/#{j}"] }
        end
      end

      # Steps that no target can ever reach: a warning, not an error.
      def loose_ends
        reached = {}
        open = entries.reject(&:holder).flat_map { |place| named(place.list) }
        until open.empty?
          id = open.pop
          next if reached[id]

          reached[id] = true
          open.concat(named(@steps[@step_at[id]]["after"] || []))
        end
        @steps.each_with_index do |step, i|
          unless reached[step["id"]]
            @warnings << { "path" => "/steps/#{i}", "message" => "no target ever goes through #{step["id"]}" }
          end
        end
      end

      def named(list) = list.flat_map { |entry| entry.is_a?(Hash) ? entry["any"] : [entry] }
    end
  end
end
