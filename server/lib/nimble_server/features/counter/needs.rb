# frozen_string_literal: true

module NimbleServer
  module Features
    module Counter
      # "What needs me now?": questions to answer, messages that did not arrive, offers that wait for a yes or lapsed
      # without one, work that was agreed to, saved quotes nobody has sent, cars that are due. Oldest first, except for
      # what is only on its way.
      class Needs
        MOST = 40
        LAPSED_DAYS = 14
        UNSENT_DAYS = 14
        DUE_DAYS = 30

        def initialize(shop)
          @shop = shop
        end

        # @return [Hash] see the contract, Counter
        def to_h
          {
            "stopped" => stopped,
            "sinking" => Day::Sinking.of(@shop),
            "questions" => questions,
            "undelivered" => undelivered,
            "waiting" => waiting,
            "lapsed" => lapsed,
            "declined" => declined,
            "agreed" => agreed,
            **ToBill.new(@shop).to_h,
            "unsent" => unsent,
            "vehicles" => @shop[:vehicles].count,
            "follow_ups" => FollowUps.new(@shop).rows,
            "due" => Due.new(@shop).rows(within_days: DUE_DAYS)
          }
        end

        private

        def now = @shop.now

        # Offers with the quote, car and customer they are for.
        def offers
          offers = Sequel[:offers]
          quotes = Sequel[:quotes]
          vehicles = Sequel[:vehicles]
          customers = Sequel[:customers]
          @shop[:offers]
            .join(:quotes, shop_id: offers[:shop_id], id: offers[:quote_id])
            .join(:vehicles, shop_id: quotes[:shop_id], id: quotes[:vehicle_id])
            .left_join(:customers, shop_id: vehicles[:shop_id], id: vehicles[:customer_id])
            .select_all(:offers)
            .select_append(
              quotes[:number],
              quotes[:currency],
              vehicles[:plate],
              vehicles[:description],
              customers[:phone],
              customers[:wishes]
            )
        end

        def unanswered = offers.where(Sequel[:offers][:superseded_at] => nil).exclude(Sequel[:offers][:id] => answered)

        def answered = @shop[:offer_answers].select(:offer_id)

        # Jobs where something happened above what was agreed, and nobody has been asked yet or has answered.
        def stopped
          jobs = in_hand.where(called_off_at: nil).exclude(stopped: nil).order(:updated_at).limit(MOST).all
          found = latest_offers(jobs)
          asked = open_offers.exclude(Sequel[:offers][:job_id] => nil).select_map(Sequel[:offers][:job_id])
          jobs.filter_map do |job|
            offer = found[job[:quote_id]] or next
            of(offer).merge(
              "job_id" => job[:id],
              "job" => job[:number],
              "happened" => job[:stopped].to_a.map(&:to_h),
              "so_far_cents" => job[:so_far_cents],
              "limit_cents" => job[:limit_cents],
              "asked" => asked.include?(job[:id])
            )
          end
        end

        # Offers somebody may still say yes to.
        def open_offers = unanswered.where(Sequel[:offers][:expires_at] > now)

        def not_arrived = @shop[:messages].where(state: %w[failed bounced])

        def waiting
          asking = @shop[:offer_questions].where(settled_at: nil).select(:offer_id)
          rows =
            open_offers.exclude(Sequel[:offers][:id] => asking).exclude(
              Sequel[:offers][:id] => not_arrived.select(:offer_id)
            )
          rows.order(Sequel[:offers][:created_at]).limit(MOST).all.then { |found| offered(found) }
        end

        def lapsed
          since = now - (LAPSED_DAYS * 86_400)
          rows = unanswered.where(Sequel[:offers][:expires_at] => since..now)
          rows.order(Sequel.desc(Sequel[:offers][:expires_at])).limit(MOST).all.then { |found| offered(found) }
        end

        # Offers somebody said no to, and nobody at the shop has read it yet.
        def declined
          found = unread_noes.order(Sequel[:offers][:created_at]).limit(MOST).all
          answers = noes(found)
          offered(found)
            .zip(found)
            .map do |shown, row|
              no = answers.fetch(row[:id]).max_by { |one| one[:created_at] }
              shown.merge("offer_id" => row[:id], "reason" => no[:reason], "at" => no[:created_at].iso8601)
            end
        end

        def unread_noes
          said = ->(answer) { @shop[:offer_answers].where(answer: answer).select(:offer_id) }
          id = Sequel[:offers][:id]
          offers.where(id => said.call("no"), :no_read_at => nil).exclude(id => said.call("yes"))
        end

        def noes(rows) =
          @shop[:offer_answers]
            .where(offer_id: rows.map { |row| row[:id] }, answer: "no")
            .all
            .group_by { |row| row[:offer_id] }

        def offered(rows)
          scopes = scopes_of(rows)
          rows.map do |row|
            of(row).merge(
              "sent_at" => row[:created_at].iso8601,
              "seen_at" => row[:seen_at]&.iso8601,
              "until" => row[:expires_at].iso8601,
              "channel" => row[:channel],
              "supplement" => !row[:job_id].nil?,
              "scopes" =>
                scopes
                  .fetch(row[:id], [])
                  .map { |scope| scope.slice(:title, :total_cents, :limit_cents).transform_keys(&:to_s) }
            )
          end
        end

        def scopes_of(rows) =
          @shop[:offer_scopes]
            .where(offer_id: rows.map { |row| row[:id] })
            .order(:position)
            .all
            .group_by { |s| s[:offer_id] }

        def of(row)
          {
            "quote_id" => row[:quote_id],
            "number" => row[:number],
            "plate" => row[:plate],
            "description" => row[:description],
            "customer" => row[:recipient],
            "phone" => row[:phone],
            "wishes" => row[:wishes]
          }
        end

        def questions
          open = @shop[:offer_questions].where(settled_at: nil).order(:created_at).limit(MOST).all
          found = offers.where(Sequel[:offers][:id] => open.map { |row| row[:offer_id] }).as_hash(:id)
          open.map do |row|
            of(found.fetch(row[:offer_id])).merge(
              "id" => row[:id],
              "words" => row[:words],
              "at" => row[:created_at].iso8601
            )
          end
        end

        def undelivered
          found = open_offers.where(Sequel[:offers][:id] => not_arrived.select(:offer_id)).as_hash(:id)
          rows = not_arrived.where(offer_id: found.keys).order(:updated_at).limit(MOST)
          rows.map do |row|
            of(found.fetch(row[:offer_id])).merge(
              "offer_id" => row[:offer_id],
              "channel" => row[:channel],
              "address" => row[:address],
              "state" => row[:state],
              "at" => row[:updated_at].iso8601
            )
          end
        end

        # Work that was agreed to, with its way down, drawn small.
        def agreed
          jobs = in_hand.order(Sequel.desc(:created_at)).limit(MOST).all
          found = latest_offers(jobs)
          jobs.filter_map { |job| found[job[:quote_id]] && agreed_row(job, found[job[:quote_id]]) }
        end

        def in_hand = Offers::AgreedJobs.in_hand(@shop[:jobs])

        def latest_offers(jobs) =
          offers
            .where(Sequel[:offers][:quote_id] => jobs.map { |job| job[:quote_id] })
            .order(:created_at)
            .as_hash(:quote_id)

        def agreed_row(job, offer)
          of(offer).merge(
            "job" => job[:number],
            "title" => job[:title],
            "agreed_cents" => job[:agreed_cents],
            "limit_cents" => job[:limit_cents],
            "at" => job[:created_at].iso8601,
            "job_id" => job[:id],
            "started_at" => job[:started_at]&.iso8601,
            "finished_at" => job[:finished_at]&.iso8601,
            "called_off" => !job[:called_off_at].nil?,
            **InBay.new(@shop, job).to_h,
            "descent" => descent(job)
          )
        end

        def descent(job)
          yeses = Offers::Answered.of(@shop, job[:quote_id], "yes").select_map(Sequel[:offer_scopes][:scope_id])
          scope = yeses.last or return nil
          @shop[:quote_scopes].where(id: scope).get(:page).to_h["descent"]
        end

        def unsent
          quotes =
            @shop[:quotes]
              .where(status: "open", put_away_at: nil)
              .where(Sequel[:latest_revision] > 0)
              .where(Sequel[:updated_at] > now - (UNSENT_DAYS * 86_400))
              .order(Sequel.desc(:updated_at))
              .limit(MOST)
              .all
          Quotes::Desk.new(@shop).cards(quotes)
        end
      end
    end
  end
end
