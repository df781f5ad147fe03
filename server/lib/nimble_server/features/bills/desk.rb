# frozen_string_literal: true

module NimbleServer
  module Features
    module Bills
      # The bill of a job: as it would be, issued once with the next number of the shop's gapless row, put right by a
      # credit note; what was paid for it (model.md section 16).
      class Desk
        START = 2001
        LONGEST_DAYS = 90

        def initialize(shop)
          @shop = shop
          @cards = Jobs::Cards.new(shop)
        end

        # @return [Hash] see the contract, BillPage
        # @raise [Refusal] 404
        def page(job_id)
          job = @cards.job(job_id)
          bills = bills(job)
          live = live(bills)
          draft = live ? nil : draft(job)
          {
            "job" => Jobs::Row.shown(job),
            "plate" => vehicle(job)[:plate],
            "description" => vehicle(job)[:description],
            "odometer_km" => vehicle(job)[:odometer_km],
            "customer" => vehicle(job)[:customer_name],
            "finished_at" => job[:finished_at]&.iso8601,
            "handed_over_at" => job[:handed_over_at]&.iso8601,
            "draft" => draft,
            "bills" => bills.map { |bill| shown(bill) },
            "payments" => payments(job).map { |row| payment(row) },
            "paid_cents" => paid_cents(job),
            "owed_cents" => (live ? live[:total_cents] : 0) - paid_cents(job),
            "due_on" => live && live[:due_on].iso8601
          }
        end

        # @param given [Hash] see the contract, IssueBill
        # @return [Hash] see the contract, BillPage
        # @raise [Refusal] 404, 409 where it is not ready, was issued, or comes to something else by now
        def issue(job_id, given)
          @shop.transaction do
            job = locked(job_id)
            refuse_issued(job)
            made = JobBill.new(@shop, @cards.of(job), paid: paid(job))
            refuse(made, given["total_cents"])
            store(job, made, given)
            page(job_id)
          end
        end

        # Puts a bill right: its lines with the opposite sign, never computed anew.
        # @return [Hash] see the contract, BillPage
        # @raise [Refusal] 404, 409 where it was credited already
        def credit(bill_id, reason)
          @shop.transaction do
            bill = @shop[:bills].where(id: bill_id, kind: "bill").first or raise Refusal.not_found("bill")
            locked(bill[:job_id])
            unless @shop[:bills].where(credits_id: bill_id).empty?
              raise Refusal.new(409, "credited", "Bill #{bill[:number]} was credited already.")
            end

            insert(
              bill.merge(kind: "credit-note", credits_id: bill_id, reason: reason.strip),
              opposite(bill[:answer].to_h)
            )
            page(bill[:job_id])
          end
        end

        # Money that came in, or was given back; noted once for a key, however often it is sent.
        # @param given [Hash] see the contract, NewPayment
        # @return [Hash] see the contract, BillPage
        # @raise [Refusal] 404, 422 for nothing, or a day still to come
        def pay(job_id, given)
          @shop.transaction do
            job = locked(job_id)
            next page(job_id) if @shop[:payments].where(key: given["key"]).get(:job_id) == job_id

            refuse_payment(given)
            values = { job_id: job_id, on: given["on"], means: given["means"], cents: given["cents"] }
            @shop.insert(:payments, **values, note: given["note"].to_s.strip, key: given["key"])
            Record::ActLog.new(@shop).append(
              given["cents"].positive? ? "paid" : "paid-back",
              "job #{job[:number]}",
              values.slice(:on, :means, :cents).transform_keys(&:to_s)
            )
            told
            page(job_id)
          end
        end

        # @return [Hash] row
        # @raise [Refusal] 404
        def bill(id) = @shop[:bills].where(id: id).first || raise(Refusal.not_found("bill"))

        # @return [Hash] row of the car of a job, with its customer
        def vehicle(job)
          @vehicles ||= {}
          @vehicles[job[:id]] ||= Vehicles::Garage.new(@shop).find(
            @shop[:quotes].where(id: job[:quote_id]).get(:vehicle_id)
          )
        end

        # The job's bill that counts: issued, and not credited.
        # @return [Hash, nil]
        def live(bills) =
          bills.find { |row| row[:kind] == "bill" && bills.none? { |one| one[:credits_id] == row[:id] } }

        # @return [Array<Hash>] rows, in the order they were issued
        def bills(job) = @shop[:bills].where(job_id: job[:id]).order(:number).all

        def payments(job) = @shop[:payments].where(job_id: job[:id]).order(:on, :created_at).all
        def paid_cents(job) = payments(job).sum { |row| row[:cents] }

        private

        def locked(job_id)
          @shop[:jobs].where(id: job_id).for_update.first or raise Refusal.not_found("job")
        end

        def paid(job) =
          payments(job).map { |row| { "on" => row[:on].iso8601, "means" => row[:means], "cents" => row[:cents] } }

        # @return [Hash, nil] nil while the work goes on, and where all that was agreed to was taken back
        def draft(job)
          return nil if @cards.agreed(job).empty?

          made = JobBill.new(@shop, @cards.of(job), paid: paid(job))
          return nil unless made.ready?

          {
            "rows" => made.rows.map { |row| row.to_h.transform_keys(&:to_s) },
            "answer" => made.answer,
            "facts" => made.facts_in_words
          }
        end

        def refuse_issued(job)
          live = live(bills(job)) or return
          raise Refusal.new(409, "issued", "Bill #{live[:number]} was issued already. A credit note puts it right.")
        end

        def refuse(made, shown_cents)
          raise Refusal.new(409, "not_finished", "The card of this job is not finished yet.") unless made.ready?

          if made.answer["incomplete"]
            raise Refusal.new(422, "incomplete_total", "A part has no price: #{made.answer["missing"].join(", ")}.")
          end
          return if made.answer["total_cents"] == shown_cents

          raise Refusal.new(409, "total_moved", "It comes to something else by now. Look at it again.")
        end

        def store(job, made, given)
          today = @shop.today
          insert(
            {
              job_id: job[:id],
              kind: "bill",
              supplied_on: job[:handed_over_at] ? @shop.day(job[:handed_over_at]) : today,
              due_on: today + given["days"].to_i.clamp(0, LONGEST_DAYS),
              payer: given["payer"].strip,
              address: given["address"].to_s.strip,
              request: made.request,
              currency: job[:currency],
              currency_exponent: @cards.of(job).work.car.house["currency_exponent"]
            },
            made.answer
          )
        end

        COPIED = %i[job_id kind credits_id supplied_on due_on payer address reason currency currency_exponent].freeze

        def insert(values, answer)
          number = @shop.next_number("bill", start: START)
          @shop.insert(
            :bills,
            **values.slice(*COPIED),
            number: number,
            issued_on: @shop.today,
            request: Sequel.pg_jsonb(values[:request].to_h),
            answer: Sequel.pg_jsonb(answer),
            total_cents: answer["total_cents"]
          )
          Record::ActLog.new(@shop).append(
            values[:kind] == "bill" ? "bill-issued" : "bill-credited",
            "#{values[:kind] == "bill" ? "bill" : "credit note"} #{number}",
            { "payer" => values[:payer], "total_cents" => answer["total_cents"], "reason" => values[:reason].to_s }
          )
          told
        end

        def opposite(answer)
          answer.merge(
            "lines" => answer["lines"].map { |line| line.merge("cents" => -line["cents"]) },
            "taxes" =>
              answer["taxes"].map { |tax| tax.merge("net_cents" => -tax["net_cents"], "cents" => -tax["cents"]) },
            "classes" => answer["classes"].transform_values(&:-@),
            "total_cents" => -answer["total_cents"]
          )
        end

        def refuse_payment(given)
          fault = { "/cents" => "must not be 0" } if given["cents"].zero?
          fault ||= { "/on" => "is a day that is not in the calendar" } unless Date.iso8601(given["on"])
          fault ||= { "/on" => "is still to come" } if Date.iso8601(given["on"]) > @shop.today
          return unless fault

          path, message = fault.first
          raise Refusal.new(
                  422,
                  "invalid_payment",
                  "The payment #{message}.",
                  details: [{ "path" => path, "message" => message }]
                )
        rescue Date::Error
          message = "is a day that is not in the calendar"
          raise Refusal.new(
                  422,
                  "invalid_payment",
                  "The day #{message}.",
                  details: [{ "path" => "/on", "message" => message }]
                )
        end

        def told
          Live.tell(@shop, "quotes")
          Live.tell(@shop, "jobs")
        end

        def shown(row)
          answer = row[:answer].to_h
          {
            "id" => row[:id],
            "number" => row[:number],
            "kind" => row[:kind],
            **credit_of(row),
            "issued_on" => row[:issued_on].iso8601,
            "due_on" => row[:due_on].iso8601,
            "payer" => row[:payer],
            "address" => row[:address],
            "reason" => row[:reason],
            "by" => @shop.db[:accounts].where(id: row[:created_by]).get(:name),
            "lines" => answer["lines"],
            "taxes" => answer["taxes"],
            "total_cents" => row[:total_cents]
          }
        end

        def credit_of(row) =
          {
            "credits" => row[:credits_id] && @shop[:bills].where(id: row[:credits_id]).get(:number),
            "credited" => !@shop[:bills].where(credits_id: row[:id]).empty?
          }

        def payment(row) =
          {
            "id" => row[:id],
            "on" => row[:on].iso8601,
            "means" => row[:means],
            "cents" => row[:cents],
            "note" => row[:note],
            "by" => @shop.db[:accounts].where(id: row[:created_by]).get(:name)
          }
      end
    end
  end
end
