# frozen_string_literal: true

module NimbleLedger
  module Access
    # Ways and choice members the advisor has fixed (formats.md, "pins"; model.md section 2).
    # A choice is keyed by the step or target that holds it: "ID", or "step:ID" / "target:ID" when both hold one.
    class Pins
      attr_reader :ways

      # @param hash [Hash, nil] {"ways" => {target => way}, "choices" => {holder => member or list}}
      # @raise [InvalidInput] when a pin names something the profile does not have
      def initialize(engine, hash, path: "/pins")
        @engine = engine
        @path = path
        @faults = Shape::Faults.new
        @source = hash || {}
        @ways = @source["ways"] || {}
        @members = {}.compare_by_identity
        @ways.each { |target, way| check_way(target, way) }
        (@source["choices"] || {}).each { |key, members| bind(key, Array(members)) }
        raise InvalidInput.new("A pin does not fit the engine.", details: @faults.list) unless @faults.list.empty?

        freeze
      end

      # The member pinned for one choice, or nil.
      def member(choice) = @members[choice]

      def any? = @ways.any? || @members.any?

      # These pins with some laid over them: other ways, other members of choices.
      # @param ways [Hash{String=>String}] target id to way id
      # @param members [Array<#holder, #choice, #id>]
      # @return [Pins]
      # @raise [InvalidInput] when a way or member does not exist
      def with(ways: {}, members: []) = changed(@ways.merge(ways), members) { |held, member| held + [member.id] }

      # These pins without those of some targets and choices.
      # @param ways [Array<String>] target ids
      # @param members [Array<#holder, #choice>]
      # @return [Pins]
      def without(ways: [], members: []) =
        changed(@ways.reject { |target, _way| ways.include?(target) }, members) { |held, _member| held }

      # @return [Hash] as formats.md has it
      def to_h = @source

      # The key an answer uses for a holder of choices.
      def self.key(engine, kind, id)
        both_hold?(engine, id) ? "#{kind}:#{id}" : id
      end

      def self.both_hold?(engine, id)
        engine.step(id)&.choices&.any? && engine.target(id)&.ways&.any? { |way| way.choices.any? }
      end

      private

      # Each choice's own member goes, and the block says what comes in its place.
      def changed(ways, members)
        choices =
          members.reduce(@source["choices"] || {}) do |all, member|
            key = key_of(member.holder)
            held = yield(Array(all[key]) - member.choice.members, member)
            held.empty? ? all.reject { |k, _| k == key } : all.merge(key => held)
          end
        Pins.new(@engine, { "ways" => ways, "choices" => choices }, path: @path)
      end

      # The key as it stands in these pins, or as an answer would write it.
      def key_of(holder)
        kind = holder.is_a?(Profile::Step) ? "step" : "target"
        ["#{kind}:#{holder.id}", holder.id].find { |key| (@source["choices"] || {}).key?(key) } ||
          Pins.key(@engine, kind, holder.id)
      end

      def check_way(target_id, way_id)
        target = @engine.target(target_id)
        here = "#{@path}/ways/#{Shape.key(target_id)}"
        return @faults.add(here, "names target #{target_id}, which the engine does not have") unless target
        return if target.ways.any? { |way| way.id == way_id }

        @faults.add(here, "#{target_id} has no way #{way_id}; it has #{target.ways.map(&:id).join(", ")}")
      end

      def bind(key, members)
        here = "#{@path}/choices/#{Shape.key(key)}"
        holders = holders_for(key)
        return @faults.add(here, "names #{key}, which holds no choice") if holders.empty?
        if holders.map { |kind, _id| kind }.uniq.size > 1
          return @faults.add(here, "is ambiguous: write step:#{key} or target:#{key}")
        end

        members.each { |member| bind_member(holders.first, member, here) }
      end

      def holders_for(key)
        kind, id = key.match(/\A(step|target):(.+)\z/m)&.captures
        found = kind ? named(id).select { |k, _id| k == kind } : []
        found.empty? ? named(key) : found
      end

      def named(id)
        holders = []
        holders << ["step", id] if @engine.step(id)&.choices&.any?
        holders << ["target", id] if @engine.target(id)&.ways&.any? { |way| way.choices.any? }
        holders
      end

      def bind_member(holder, member, here)
        kind, id = holder
        choices = kind == "step" ? @engine.step(id).choices : @engine.target(id).ways.flat_map(&:choices)
        fitting = choices.select { |choice| choice.members.include?(member) }
        return @faults.add(here, "#{member} is not a member of any choice of #{id}") if fitting.empty?

        fitting.each do |choice|
          other = @members[choice]
          @faults.add(here, "pins #{other} and #{member} in one choice") if other && other != member
          @members[choice] = member
        end
      end
    end
  end
end
