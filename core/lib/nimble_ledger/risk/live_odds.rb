# frozen_string_literal: true

module NimbleLedger
  module Risk
    # A job under way (model.md section 5, "Live"): which plugs are out and how they came, and what that does to the
    # odds of those still in the head. A shared factor is learned, gamma-Poisson with prior mean 1 and the house's
    # variance; the signs seen count by their geometric mean; so does turning the rest hot.
    class LiveOdds
      OUTCOMES = %w[free stubborn thread broken].freeze
      SIGNS = %w[freer more-force chirps].freeze

      plug =
        Shape.object(required: { "outcome" => Shape.one_of(*OUTCOMES) }, optional: { "sign" => Shape.one_of(*SIGNS) })
      SHAPE =
        Shape.object(
          optional: {
            "out" =>
              Shape.map(
                Shape.either(
                  plug,
                  Shape.list(Shape.nullable(plug), max: 64),
                  say: "a plug that is out, or a list of them"
                ),
                max: 64
              ),
            "hot" => Shape.boolean
          }
        )

      # One plug that is out: the target it belongs to, how it came, the sign seen.
      Out = Struct.new(:target, :outcome, :sign)

      # @return [Array<Out>]
      attr_reader :out

      # @return [Hash] `live.out` as given
      attr_reader :given

      # @param hash [Hash] fitting SHAPE
      # @param targets [Array<Profile::Target>] of the job
      # @raise [InvalidInput] for a target that is not a plug of the job, or a list of another length than it has plugs
      def initialize(hash, targets, house:, path: "/live")
        @house = house
        @hot = hash["hot"] || false
        @given = hash["out"] || {}
        @out = @given.flat_map { |id, plugs| read(id, plugs, targets, "#{path}/out/#{Shape.key(id)}") }
        freeze
      end

      # What a plug still in the head has, from what it had before the job.
      # @param before [PlugRemoval::Chances]
      # @param shared [Float] what was learned of the factor all plugs share (rules 1 and 2; 1 under rules 3)
      # @return [PlugRemoval::Chances]
      def chances(before, shared: 1.0)
        moved = sign_factor * (@hot ? @house["hot_factor"] : 1)
        PlugRemoval::Chances.new(
          Odds.shift(before.broken, moved * shared),
          Odds.shift(before.thread, moved),
          Odds.shift(before.stubborn, moved)
        )
      end

      # What is known of some of the targets; the plugs of the others are left out.
      # @param targets [Array<Profile::Target>]
      # @return [LiveOdds]
      def of(targets) =
        LiveOdds.new({ "out" => given.slice(*targets.map(&:id)), "hot" => @hot }, targets, house: @house)

      # @return [Integer] how many plugs of a target are out
      def count(target) = out.count { |one| one.target == target }

      # Above 1 when more broke than expected.
      # @param expected [Float] sum of the break chances, before the job, of the plugs that are out
      def shared_factor(expected)
        return 1.0 if @house["live_variance"].zero?

        prior = 1 / @house["live_variance"].to_f
        (prior + out.count { |one| one.outcome == "broken" }) / (prior + expected)
      end

      # Geometric mean over the plugs that are out; a plug without a sign counts as 1.
      def sign_factor
        return 1.0 if out.empty?

        out.reduce(1.0) { |product, one| product * (one.sign ? @house["sign_factor"].fetch(one.sign) : 1) }**
          (1.0 / out.size)
      end

      private

      def read(id, plugs, targets, path)
        target = targets.find { |one| one.id == id }
        raise InvalidInput.at(path, "#{id} is not among the targets of this request") unless target
        raise InvalidInput.at(path, "#{id} is no plug") unless target.plug?
        list = plugs.is_a?(Array) ? plugs : [plugs]
        unless list.size == target.plugs && (plugs.is_a?(Array) || target.plugs == 1)
          raise InvalidInput.at(
                  path,
                  "#{id} has #{target.plugs} plugs: give a list of #{target.plugs}, null for one still in"
                )
        end

        list.compact.map { |plug| Out.new(target, plug["outcome"], plug["sign"]) }
      end
    end
  end
end
