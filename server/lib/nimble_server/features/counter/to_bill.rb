# frozen_string_literal: true

module NimbleServer
  module Features
    module Counter
      # Money that needs somebody: cars that were handed over without a bill, bills whose day has passed and that are
      # not paid.
      class ToBill
        MOST = 40

        def initialize(shop)
          @shop = shop
        end

        # @return [Hash] see the contract, Counter
        def to_h = { "unbilled" => unbilled, "overdue" => overdue }

        private

        # Bills that were issued and not credited.
        def live =
          @shop[:bills].where(kind: "bill").exclude(id: @shop[:bills].exclude(credits_id: nil).select(:credits_id))

        def unbilled
          jobs = @shop[:jobs].exclude(handed_over_at: nil).exclude(id: live.select(:job_id))
          rows = jobs.order(:handed_over_at).limit(MOST).all
          rows.map { |job| of(job).merge("agreed_cents" => job[:agreed_cents], "at" => job[:handed_over_at].iso8601) }
        end

        def overdue
          rows = live.where(Sequel[:due_on] < @shop.today).order(:due_on).all
          paid = paid(rows)
          owing = rows.map { |row| [row, row[:total_cents] - paid.fetch(row[:job_id], 0).to_i] }
          owing.select { |_row, owed| owed.positive? }.first(MOST).map { |row, owed| owed_row(row, owed) }
        end

        # @return [Hash{String=>Integer}] cents by job
        def paid(rows)
          payments = @shop[:payments].where(job_id: rows.map { |row| row[:job_id] }).group(:job_id)
          payments.select_hash(:job_id, Sequel.function(:sum, :cents).as(:cents))
        end

        def owed_row(row, owed)
          of(@shop[:jobs].where(id: row[:job_id]).first).merge(
            "number" => row[:number],
            "payer" => row[:payer],
            "owed_cents" => owed,
            "due_on" => row[:due_on].iso8601
          )
        end

        # Which job and car a row is about.
        def of(job)
          vehicle = Vehicles::Garage.new(@shop).find(@shop[:quotes].where(id: job[:quote_id]).get(:vehicle_id))
          {
            "job_id" => job[:id],
            "job" => job[:number],
            "title" => job[:title],
            "plate" => vehicle[:plate],
            "customer" => vehicle[:customer_name],
            "phone" => vehicle[:customer_phone]
          }
        end
      end
    end
  end
end
