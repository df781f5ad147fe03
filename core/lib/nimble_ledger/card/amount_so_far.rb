# frozen_string_literal: true

module NimbleLedger
  module Card
    # What a job comes to by what has happened on it so far, and by what would come on top, against the limit the
    # customer agreed to (model.md sections 5 and 14): nothing is billed beyond it without another yes.
    class AmountSoFar
      # Something that fought back for certain: a plug that broke or took its thread along, or a mishap of a step.
      # kind: broken, thread or mishap; of: Profile::Target or Risk::Mishaps::Mishap.
      Fought = Struct.new(:kind, :of)

      # @param job [Job]
      # @param agreed_cents [Integer, nil] what it comes to without trouble; nil: its price
      def initialize(job, agreed_cents: nil)
        @job = job
        @trouble = Risk::Trouble.for(job)
        @beside = agreed_cents && @job.price ? agreed_cents - @job.price.total_cents : 0
        freeze
      end

      # Whether it can be said in money.
      def known? = !@trouble.nil?

      # @param fought [Array<Fought>]
      # @return [Integer, nil] cents of the whole job
      def total(fought)
        return @job.price && (@job.price.total_cents + @beside) unless known?

        @trouble.allowance.price_of(outcome(fought.reject { |one| owed?(one) })) + @beside
      end

      # Tenths of an hour that what happened adds to the quoted ones.
      # @return [Integer]
      def extra_tenths(fought)
        known? ? @trouble.allowance.extra_tenths(outcome(fought.reject { |one| owed?(one) })) : 0
      end

      # Parts that what happened takes, as lines by hand: the total with them and the extra hours is the total of what
      # happened.
      # @return [Array<Price::HandLine>]
      def parts(fought)
        ours = fought.reject { |one| owed?(one) }
        kit = ours.any? { |one| one.kind == "broken" } ? [line(KIT, @job.car.house["extraction_kit_cents"])] : []
        own = ours.map { |one| line(format(PARTS.fetch(one.kind), of: label(one)), parts_cents(one)) }
        (kit + own).select { |made| made.cents.positive? }
      end

      # Minutes it takes.
      # @return [ThreePoints]
      def minutes(one)
        one.kind == "mishap" ? one.of.minutes : @trouble.outcomes.minutes_of(one.kind, one.of)
      end

      KIT = "Extraction kit, its share"
      PARTS = {
        "broken" => "Extraction set, %<of>s",
        "thread" => "Thread insert, %<of>s",
        "mishap" => "Parts: %<of>s"
      }.freeze

      private

      def line(label, cents) = Price::HandLine.new(label, "parts", 1, cents)
      def label(one) = one.kind == "mishap" ? one.of.what : one.of.label

      # Trouble on what we owe is ours.
      def owed?(one) = one.kind != "mishap" && @job.owed.include?(one.of)

      def outcome(fought)
        counts = fought.group_by(&:kind).transform_values(&:size)
        points = fought.map { |one| minutes(one) }
        mean = points.sum(0.0, &:mean)
        variance = points.sum(0.0, &:variance)
        Risk::OutcomeSpace::Outcome.new(
          1.0,
          counts.fetch("broken", 0),
          counts.fetch("thread", 0),
          0,
          counts.fetch("mishap", 0),
          mean,
          variance,
          mean,
          variance,
          fought.sum { |one| parts_cents(one) }
        )
      end

      def parts_cents(one)
        house = @job.car.house
        return house["extraction_set_cents"] if one.kind == "broken"
        return house["insert_cents"] if one.kind == "thread"

        one.of.parts.sum { |part| (@job.selling_price(part["part"]) || 0) * part["quantity"].to_i }
      end
    end
  end
end
