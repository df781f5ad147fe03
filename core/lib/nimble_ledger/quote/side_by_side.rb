# frozen_string_literal: true

module NimbleLedger
  module Quote
    # The scopes of one quote beside each other: what each comes to now, and what the work it leaves would come to on
    # another day, with the access paid for again. The cheaper-now scope is never hidden.
    #
    #   Quote::SideBySide.new([one_coil, all_coils], active: 0).rows.first["left_cents"]   #=> the other coils, alone
    class SideBySide
      WITH_IT = %w[by-hand consumable supplies fee discount tax].freeze

      # @param sheets [Array<Sheet>] one for each scope, in the order they stand
      # @param active [Integer] the scope the others are held against
      def initialize(sheets, active:)
        @sheets = sheets
        @active = sheets.fetch(active)
        @everything = sheets.select(&:answer).flat_map { |sheet| sheet.answer.targets }.uniq
        freeze
      end

      # @return [Array<Hash>] see the contract, Beside; a scope that holds nothing or cannot be planned has its title
      # only
      def rows =
        @sheets.each_with_index.map do |sheet, index|
          { "index" => index, "title" => sheet.title }.merge(sheet.answer ? figures(sheet) : {})
        end

      private

      def figures(sheet)
        answer = sheet.answer
        row = {
          "quoted_hours" => answer.quoted_tenths / 10.0,
          "p80_hours" => answer.plan.job.hours(0.8),
          "ready" => sheet.ready&.to_s,
          "descent" => Sheet.descent(answer.plan)
        }
        row.merge(money(answer), against(answer), trouble(sheet), left(sheet)).compact
      end

      def money(answer)
        price = answer.price or return {}

        sums = price.list.group_by(&:kind).transform_values { |lines| lines.sum(&:cents) }
        {
          "labor_cents" => sums.fetch("labor", 0),
          "parts_cents" => sums.fetch("part", 0),
          "with_it_cents" => sums.values_at(*WITH_IT).compact.sum,
          "total_cents" => price.total_cents,
          "incomplete" => price.incomplete?
        }
      end

      def against(answer)
        here = @active.answer
        return {} if here.nil? || here.equal?(answer) || answer.price.nil?

        {
          "against_hours" => (answer.quoted_tenths - here.quoted_tenths) / 10.0,
          "against_cents" => answer.price.total_cents - here.price.total_cents
        }
      end

      def trouble(sheet)
        trouble = sheet.trouble or return {}

        { "no_trouble" => trouble.outcomes.no_trouble, "not_above_cents" => trouble.allowance.not_above_cents }
      end

      # What the other scopes hold and this one leaves, done another day.
      def left(sheet)
        later = sheet.alone(sheet.engine.targets & (@everything - sheet.answer.targets))
        return {} unless later&.price

        {
          "left_hours" => later.quoted_tenths / 10.0,
          "left_cents" => later.price.total_cents,
          "both_cents" => sheet.answer.price.total_cents + later.price.total_cents
        }
      end
    end
  end
end
