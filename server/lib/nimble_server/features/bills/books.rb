# frozen_string_literal: true

module NimbleServer
  module Features
    module Bills
      # The shop's journal of bills and payments (NimbleLedger::Bill::Journal), job by job, as a table.
      class Books
        COLUMNS = %w[day what account debit credit].freeze

        def initialize(shop)
          @shop = shop
        end

        # @return [String] CSV, in major units of the currency
        def csv
          rows = journals.flat_map(&:entries).sort_by.with_index { |entry, i| [entry.on, i] }
          NimbleServer::Documents::CsvTable.new("journal", COLUMNS, needed: "day").print(
            rows.map { |entry| line(entry) }
          )
        end

        # Every job with a bill or a payment.
        # @return [Array<NimbleLedger::Bill::Journal>]
        def journals = happenings.group_by { |one| one[:job_id] }.map { |_job, rows| journal(rows) }

        # Cents still open and held, by the journal; and by the bills and payments themselves: the two are one.
        # @return [Array(Integer, Integer)]
        def open_cents
          all = journals
          [
            all.sum { |journal| journal.receivable - journal.deposits },
            @shop[:bills].sum(:total_cents).to_i - @shop[:payments].sum(:cents).to_i
          ]
        end

        private

        def line(entry)
          amount = @shop.text.plain(entry.cents.abs)
          [entry.on, entry.text, entry.account, *(entry.cents.positive? ? [amount, nil] : [nil, amount])]
        end

        def happenings
          bills = @shop[:bills].all.map { |row| row.merge(on: row[:issued_on]) }
          (bills + @shop[:payments].all).sort_by { |row| row[:created_at] }
        end

        def journal(rows)
          rows.each_with_object(NimbleLedger::Bill::Journal.new) { |row, journal| post(journal, row) }
        end

        def post(journal, row)
          on = row[:on].iso8601
          return journal.payment(on: on, means: row[:means], cents: row[:cents], text: "payment") if row[:means]

          sign = row[:kind] == "bill" ? 1 : -1
          answer = row[:answer].to_h
          journal.public_send(
            row[:kind] == "bill" ? :bill : :credit_note,
            on: on,
            total: sign * row[:total_cents],
            classes: answer["classes"].transform_values { |cents| sign * cents },
            taxes: answer["taxes"].to_h { |tax| [tax["label"], sign * tax["cents"]] },
            text: "#{row[:kind] == "bill" ? "Bill" : "Credit note"} #{row[:number]}"
          )
        end
      end
    end
  end
end
