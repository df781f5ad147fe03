# frozen_string_literal: true

module NimbleLedger
  # Entering engines: a profile under the pencil, what it says so far, and where to begin (model.md section 1).
  module Workshop
    # A profile read as layers (model.md section 1): which cylinders each step lies over, and the prerequisites that
    # follow from it. Steps stand in the file from the top down. A layer comes after those above it that share a
    # cylinder; a target goes through what lies over its cylinders; of layers that are alternatives one is enough. What
    # follows through another is not said twice.
    #
    #   Layers.new(profile).over("upper-manifold")  #=> [1, 3, 5]
    #
    # Caveat: a profile with a circle or a name that does not exist is read as far as it goes.
    class Layers
      attr_reader :ids, :forks

      # @param profile [Hash] fits Profile::SHAPE; its names need not exist
      def initialize(profile, forks: nil)
        @profile = profile
        @steps = profile["steps"].to_h { |step| [step["id"], step] }
        @ids = @steps.keys
        @depth = @ids.each_with_index.to_h
        @forks = forks || read_forks
        @over = @ids.to_h { |id| [id, @steps[id]["over"]&.sort || reached_from(id)] }
      end

      # Cylinders a step lies over: as pressed where the profile keeps that, else those whose work goes through it.
      # @return [Array<Integer>] ascending
      def over(id) = @over.fetch(id)

      # Cylinders whose plugs lie under a step by any way; of a step no plug goes through, those whose other work does.
      def reached_from(id)
        plugs = structure.fetch("plug").fetch(id, [])
        (plugs.empty? ? structure.fetch("all").fetch(id, []) : plugs).sort
      end

      # What a step is an alternative to, itself included; nil where it is none.
      # @return [Array<String>, nil]
      def fork_of(id) = forks.find { |members| members.include?(id) }

      # What follows for a step from the layers above it.
      # @return [Array<String, Hash>] entries of `after`
      def after(id, over = @over.fetch(id)) = entries(@ids.first(@depth.fetch(id)) - (fork_of(id) || []), over)

      # What follows for work on these cylinders.
      # @return [Array<String, Hash>] entries of `through`
      def through(cylinders) = entries(@ids, cylinders)

      # All that comes off for a list of entries in any case: ids, and forks by their members.
      # @return [Set<String, Array<String>>]
      def meaning(list) = list.each_with_object(Set.new) { |entry, all| all.merge(meaning_of(entry, [])) }

      private

      # Of the layers over these cylinders those that no other brings along, from the top down.
      def entries(candidates, cylinders)
        above = candidates.select { |id| @over.fetch(id).intersect?(cylinders) }
        covered = Set.new
        above
          .reverse
          .each_with_object([]) do |id, kept|
            entry = entry_for(id)
            token = entry.is_a?(Hash) ? entry["any"].sort : id
            next if covered.include?(token)

            covered.merge(meaning_of(entry, []))
            kept.unshift(entry)
          end
      end

      def entry_for(id)
        members = fork_of(id)
        members ? { "any" => @ids.select { |one| members.include?(one) } } : id
      end

      def meaning_of(entry, trail)
        if entry.is_a?(Hash)
          shared = entry["any"].map { |id| meaning_of(id, trail) }.reduce(:&) || Set.new
          return shared | [entry["any"].sort]
        end
        return Set.new if trail.include?(entry) || !@steps.key?(entry)

        @meanings ||= {}
        return @meanings[entry] if @meanings.key?(entry)

        found = Set[entry]
        (@steps[entry]["after"] || []).each { |before| found.merge(meaning_of(before, trail + [entry])) }
        @meanings[entry] = found
      end

      # Lists of alternatives whose members lie side by side.
      def read_forks
        lists = @profile["steps"].flat_map { |step| step["after"] || [] }
        lists += @profile["targets"].flat_map { |target| target["ways"].flat_map { |way| way["through"] || [] } }
        lists.grep(Hash).map { |entry| entry["any"].sort }.uniq
      end

      def structure
        @structure ||= {
          "plug" => under(@profile["targets"].select { |target| target["work"] == "plug" }),
          "all" => under(@profile["targets"])
        }
      end

      def under(targets)
        targets.each_with_object({}) do |target, found|
          cylinders = Layers.cylinders(target)
          target["ways"].each do |way|
            closure(way["through"] || []).each { |id| (found[id] ||= Set.new).merge(cylinders) }
          end
        end
      end

      def closure(list)
        open = names(list)
        seen = Set.new
        while (id = open.pop)
          next unless @steps.key?(id) && seen.add?(id)

          open.concat(names(@steps[id]["after"] || []))
        end
        seen
      end

      def names(list) = list.flat_map { |entry| entry.is_a?(Hash) ? entry["any"] : [entry] }

      class << self
        # @return [Array<Integer>] cylinders a target serves
        def cylinders(target) = target["cylinders"] || [target["cylinder"]].compact
      end
    end
  end
end
