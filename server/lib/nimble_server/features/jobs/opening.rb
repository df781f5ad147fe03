# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # A yes opens the job of a quote; a further one enlarges it, one that is struck makes it smaller again. What is
      # agreed always follows from the yeses that count. Runs inside the caller's transaction.
      class Opening
        def initialize(shop)
          @shop = shop
        end

        # @param offer [Offers::Offer]
        # @param scope [Offers::OfferedScope] that was agreed to
        # @param limit_cents [Integer]
        def from_yes(offer:, scope:, limit_cents:)
          job = @shop[:jobs].where(quote_id: offer.quote[:id]).first
          job ? enlarge(job, offer) : first(offer, scope, limit_cents)
        end

        # A yes of a quote is about to be struck.
        # @param others [Boolean] whether something else is agreed to on it
        # @raise [Refusal] 409 where work has begun on it
        def refuse_strike(quote_id:, others:)
          job = @shop[:jobs].where(quote_id: quote_id).for_update.first
          raise Refusal.new(409, "handed_over", "The car was handed over already.") if job[:handed_over_at]
          return if job[:started_at].nil? || others

          raise Refusal.new(
                  409,
                  "begun",
                  "Work on it has begun. Call the job off instead: what was done stays agreed to."
                )
        end

        # A yes counts no more, or counts again.
        # @param job [Hash] row
        # @return [Integer] how many yeses are left
        def settle(job)
          yeses = yeses(job)
          @shop[:jobs].where(id: job[:id]).update(agreed(yeses).merge(updated_at: @shop.now)) if yeses.any?
          yeses.size
        end

        private

        def first(offer, scope, limit_cents)
          number = @shop.next_number("job", start: 501)
          @shop.insert(
            :jobs,
            number: number,
            quote_id: offer.quote[:id],
            title: scope.title,
            agreed_cents: scope.total_cents,
            limit_cents: limit_cents,
            currency: offer.revision[:currency],
            search: "#{number} #{offer.quote[:search]}",
            updated_at: @shop.now
          )
          Record::ActLog.new(@shop).append(
            "job-opened",
            "job #{number}",
            { "quote" => offer.subject, "agreed_cents" => scope.total_cents, "limit_cents" => limit_cents }
          )
        end

        def enlarge(job, offer)
          CallingOff.new(@shop).over(job) if job[:called_off_at]
          values = agreed(yeses(job))
          @shop[:jobs].where(id: job[:id]).update(stopped: nil, so_far_cents: nil, updated_at: @shop.now, **values)
          Record::ActLog.new(@shop).append(
            "job-enlarged",
            "job #{job[:number]}",
            { "quote" => offer.subject, **values.slice(:agreed_cents, :limit_cents).transform_keys(&:to_s) }
          )
        end

        YES = [
          Sequel[:offer_scopes][:title],
          Sequel[:offer_scopes][:total_cents],
          Sequel[:offer_answers][:limit_cents],
          Sequel[:offers][:job_id]
        ].freeze
        private_constant :YES

        def yeses(job) = Offers::Answered.of(@shop, job[:quote_id], "yes").select(*YES).all

        # @param yeses [Array<Hash>] in the order they were said
        # @return [Hash] columns of a job
        def agreed(yeses)
          first, *rest = yeses
          start = [first[:title], NimbleLedger::Record::Agreement.new(first[:total_cents], first[:limit_cents])]
          title, agreement =
            rest.reduce(start) do |(title, agreement), yes|
              whole = !yes[:job_id].nil?
              [
                whole ? yes[:title] : "#{title}, #{yes[:title]}",
                agreement.with(yes[:total_cents], yes[:limit_cents], supplement: whole)
              ]
            end
          { title: title, agreed_cents: agreement.agreed_cents, limit_cents: agreement.limit_cents }
        end
      end
    end
  end
end
