# frozen_string_literal: true

module NimbleLedger
  # What is billed: what was agreed, less what was not done, plus what happened and was allowed; never a cent above the
  # yeses (model.md section 16).
  module Bill
    # One bill, worked out from its work and what was agreed.
    #
    #   bill = Bill.new(work, agreed, paid: [20_000])
    #   bill.total_cents; bill.lines; bill.owed_cents
    class Bill
      # One line. kind: labor, diagnosis, part, by-hand, consumable, supplies, fee, discount, above-limit, tax,
      # warranty.
      Line = Struct.new(:kind, :label, :part, :quantity, :cents)

      attr_reader :lines, :hours, :total_cents, :above_cents

      # @param work [BillLines] what was done, in lines before tax
      # @param agreed [YesesInForce] sums, limits, discounts
      # @param paid [Array<Integer>] cents; below 0 given back
      def initialize(work, agreed, paid: [])
        @work = work
        @agreed = agreed
        @paid = paid
        @tax = Price::Tax.new(work.house)
        @hours = work.tenths / 10.0
        @before_tax = work.lines(work.tenths)
        @off = agreed.discounts(@before_tax.sum(&:cents))
        @above_cents = least_above
        @sums = sums(@before_tax, @off.sum(&:cents) + @above_cents)
        @total_cents = @sums.total
        @lines = work.owed_lines + shown(@before_tax) + work.credited_lines + reductions + tax_lines
        freeze
      end

      def paid_cents = @paid.sum
      def owed_cents = total_cents - paid_cents
      def agreed_cents = @agreed.agreed_cents
      def missing = @work.missing
      def inclusive? = @work.house["tax_inclusive"]
      def included_tax_cents = @tax.included_cents(@sums.by_class)

      # The most it may come to, by the limits.
      def limit_cents = [@agreed.limit_cents - @agreed.saved_cents, 0].max + @work.diagnosis_alone_cents

      # @return [Hash{String=>Integer}] cents by class after reductions, without contained tax
      def classes = @tax.net_cents(@sums.by_class)

      # @return [Array<Price::Tax::Share>] every entry of the house's taxes, those of nothing too
      def taxes = @tax.shares(@sums.by_class)

      private

      # Before tax, taken off, by class after that, tax on top, the whole.
      Sums = Struct.new(:by_class, :total)
      private_constant :Sums

      def sums(lines, off)
        gross = lines.map(&:cents)
        by_class = Hash.new(0)
        lines.zip(Price::Discount.net(off, gross)) { |line, cents| by_class[line.tax_class] += cents }
        Sums.new(by_class, gross.sum - off + @tax.added_cents(by_class))
      end

      # The lesser of what the limits allow, and of what was agreed with what happened since at the hours quoted.
      def bound
        quoted = @work.lines(@work.quoted_tenths)
        at_quoted =
          sums(quoted, @agreed.discounts(quoted.sum(&:cents)).sum(&:cents)).total - @work.diagnosis_alone_cents
        by_agreed = @agreed.agreed_cents - @agreed.saved_cents + (at_quoted - @agreed.done_cents)
        [limit_cents, [by_agreed, 0].max + @work.diagnosis_alone_cents].min
      end

      # The smallest number of cents that brings the total to the bound.
      def least_above
        off = @off.sum(&:cents)
        most = @before_tax.sum(&:cents) - off
        over = sums(@before_tax, off).total - bound
        return 0 unless over.positive?

        first = [((over - @before_tax.size - 8) / (1 + @tax.highest_rate)).floor, 0].max
        (first..most).find { |cents| sums(@before_tax, off + cents).total <= bound } || most
      end

      def shown(lines) = lines.map { |line| Line.new(line.kind, line.label, line.part, line.quantity, line.cents) }

      def reductions
        rows = @off.map { |one| Line.new("discount", one.label, nil, 1, -one.cents) }
        rows << Line.new("above-limit", "Above the agreed limit", nil, 1, -above_cents) if above_cents.positive?
        rows
      end

      def tax_lines = @tax.added(@sums.by_class).map { |tax| Line.new("tax", tax.label, nil, 1, tax.cents) }
    end
  end
end
