# frozen_string_literal: true

module NimbleLedger
  module Bill
    # The journal (model.md section 16): each bill, credit note and payment of one job as entries that balance.
    # Revenue is net of reductions and of contained tax; what is paid before there is a bill is held as a deposit.
    #
    #   journal = Journal.new
    #   journal.payment(on: "2026-03-02", means: "bank", cents: 20_000, text: "deposit")
    #   journal.bill(on: "2026-03-09", total: 73_340, classes: {...}, taxes: {...}, text: "Bill 1042")
    #   journal.entries.sum(&:cents)   #=> 0
    #   journal.receivable             #=> 53_340
    class Journal
      # One side of an entry. on: ISO day; cents: debit above 0, credit below.
      Entry = Struct.new(:on, :text, :account, :cents, keyword_init: true)

      attr_reader :entries, :receivable, :deposits

      def initialize
        @entries = []
        @receivable = 0
        @deposits = 0
      end

      # @param classes [Hash{String=>Integer}] net cents: labor, parts, fees
      # @param taxes [Hash{String=>Integer}] cents by label
      # @param total [Integer] cents
      def bill(on:, total:, classes:, taxes:, text:)
        post(on, text, "receivable", total)
        revenue(classes, taxes).each { |account, cents| post(on, text, account, -cents) }
        @receivable += total
        apply(on, "#{text}, deposit applied")
      end

      # A bill is put right: what was on it goes back, and what was paid for it stands for the next one.
      # @param credited see #bill, of the bill
      def credit_note(on:, total:, classes:, taxes:, text:)
        revenue(classes, taxes).each { |account, cents| post(on, text, account, cents) }
        post(on, text, "receivable", -total)
        @receivable -= total
        return unless @receivable.negative?

        over = -@receivable
        move(on, "#{text}, paid stands over", "receivable", "deposits", over)
        @receivable = 0
        @deposits += over
      end

      # @param cents [Integer] below 0 given back
      # @param means ["cash", "card", "bank", "other"]
      def payment(on:, means:, cents:, text:)
        first = cents.positive? ? cents.clamp(0, @receivable) : -[-cents - [-cents, @deposits].min, 0].max
        rest = cents - first
        post(on, text, means, cents)
        post(on, text, "receivable", -first)
        post(on, text, "deposits", -rest)
        @receivable -= first
        @deposits += rest
      end

      private

      def revenue(classes, taxes) = classes.merge(taxes.transform_keys { |label| "tax: #{label}" })

      def apply(on, text)
        used = [@deposits, @receivable].min
        return unless used.positive?

        move(on, text, "deposits", "receivable", used)
        @deposits -= used
        @receivable -= used
      end

      def move(on, text, debit, credit, cents)
        post(on, text, debit, cents)
        post(on, text, credit, -cents)
      end

      def post(on, text, account, cents)
        @entries << Entry.new(on: on, text: text, account: account, cents: cents) unless cents.zero?
      end
    end
  end
end
