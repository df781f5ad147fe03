# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # What was found on a job, priced as one plan with what is open, and put into its quote for the advisor to offer:
      # a supplement, with a yes of its own.
      class FoundWork
        def initialize(shop, card, state)
          @shop = shop
          @card = card
          @state = state
        end

        # Everything found, with what is proposed for it.
        # @return [Array<Hash>] see the contract, CardProposal
        def list = @state["found"].map { |found| found.slice("id", "finding", "cylinder").merge(proposal(found).to_h) }

        # Puts what is proposed for a finding into the quote's working copy, beside all that was agreed.
        # @param mark [String] id of the mark that found it
        # @return [Hash] quote_id
        # @raise [Refusal] 404 for no such finding, 409 where nothing is to be added
        def into_quote(mark)
          found = @state["found"].find { |one| one["id"] == mark } or raise Refusal.not_found("finding")
          proposed = proposal(found)
          if proposed.targets.empty? && proposed.lines.empty?
            raise Refusal.new(409, "nothing_to_add", "There is no work in this engine's profile to add for it.")
          end

          quote = Quotes::Desk.new(@shop).find(@card.job[:quote_id])
          drafts = Quotes::Drafts.new(@shop)
          draft = drafts.of(quote)
          drafts.store(quote, draft[:version], content(quote, proposed), quote[:latest_revision])
          { "quote_id" => quote[:id] }
        end

        private

        # What is agreed, at the prices of today: built once something is found.
        def work = @work ||= @card.priced_by(Library.catalog(@shop, @shop.newest(:price_lists)))

        def proposal(found) = NimbleLedger::Card::Proposal.new(found["finding"], found["cylinder"], work)

        # One scope with all that was agreed and what is new: a supplement is the whole of what is done.
        def content(quote, proposed)
          newest = JSON.parse(JSON.generate(Quotes::Revisions.new(@shop).newest(quote)[:content].to_h))
          scope = newest["scopes"][newest["active"].to_i] || newest["scopes"].first
          base = scope.except("hours", "reference").merge("soak" => @card.request["soak"])
          added = { "extras" => extras(base, proposed.targets), "lines" => base["lines"].to_a + proposed.lines }
          newest.merge("scopes" => [base.merge(added)], "active" => 0)
        end

        # Work the scope does not choose by cylinders and kinds, by name.
        def extras(scope, targets)
          chosen = NimbleLedger::Quote::Selection.new(work.car.engine, scope).targets
          (scope["extras"].to_a + (work.targets + targets - chosen).map(&:id)).uniq
        end
      end
    end
  end
end
