# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # A yes opens the job of a quote; a yes to a supplement makes it the larger one. Runs inside the caller's
      # transaction.
      class Opening
        def initialize(shop)
          @shop = shop
        end

        # @param offer [Offers::Offer]
        # @param scope [Offers::OfferedScope] that was agreed to
        # @param limit_cents [Integer]
        def from_yes(offer, scope, limit_cents)
          job = @shop[:jobs].where(quote_id: offer.quote[:id]).first
          job ? enlarge(job, offer, scope, limit_cents) : first(offer, scope, limit_cents)
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

        def enlarge(job, offer, scope, limit_cents)
          whole = offer.supplement?
          before = NimbleLedger::Record::Agreement.new(job[:agreed_cents], job[:limit_cents])
          agreed = before.with(scope.total_cents, limit_cents, supplement: whole)
          values = {
            title: whole ? scope.title : "#{job[:title]}, #{scope.title}",
            agreed_cents: agreed.agreed_cents,
            limit_cents: agreed.limit_cents,
            stopped: nil,
            so_far_cents: nil,
            updated_at: @shop.now
          }
          @shop[:jobs].where(id: job[:id]).update(values)
          Record::ActLog.new(@shop).append(
            "job-enlarged",
            "job #{job[:number]}",
            { "quote" => offer.subject, **values.slice(:agreed_cents, :limit_cents).transform_keys(&:to_s) }
          )
        end
      end
    end
  end
end
