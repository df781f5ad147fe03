# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # Jobs for the bay and for whoever gives them out: the list, one card with everything on it, who works where.
      class Desk
        MOST = 60

        def initialize(shop)
          @shop = shop
          @cards = Cards.new(@shop)
          @marks = Marks.new(@shop)
          @standings = Standings.new(@shop)
        end

        # Jobs that are not handed over yet, those in work first.
        # @return [Array<Hash>] see the contract, BayJob
        def list
          order = [Sequel.desc(:started_at, nulls: :last), Sequel.desc(Sequel[:jobs][:updated_at])]
          rows = Offers::AgreedJobs.in_hand(joined).order(*order)
          rows.limit(MOST).all.map { |row| shown(row) }
        end

        # @return [Hash] see the contract, JobCard
        def card(id) = page(@cards.of(@cards.job(id)))

        # @param given [Array<Hash>] marks
        # @return [Hash] see the contract, HandedIn
        def hand_in(id, device, given)
          card = @cards.of(@cards.job(id))
          intake = @marks.hand_in(card, device, given)
          card.job = @cards.job(id)
          shown = page(card, intake.marks, intake.fold)
          note_stop(card, intake.fold)
          { "taken" => intake.taken, "refused" => intake.refused }.merge(shown)
        end

        # Who does it, where, and how warm it came.
        # @param given [Hash] see the contract, GiveJob
        def give(id, given)
          job = @cards.job(id)
          values = given.slice("technician_id", "bay", "arrival").transform_keys(&:to_sym)
          refuse_stranger(values[:technician_id])
          values[:arrived_at] = @shop.now if given.key?("arrival") && given["arrival"] != job[:arrival]
          values[:bay] = values[:bay].strip if values[:bay]
          @shop[:jobs].where(id: id).update(values.merge(updated_at: @shop.now))
          Live.tell(@shop, "jobs")
          card(id)
        end

        # @return [Hash] see the contract, ScanReport
        def scan(id)
          card = @cards.of(@cards.job(id))
          Scan.new(@shop).read(card, @marks.fold(card.job).state)
        end

        # @return [Hash] quote_id
        def propose(id, mark)
          card = @cards.of(@cards.job(id))
          FoundWork.new(@shop, card, @marks.fold(card.job).state).into_quote(mark)
        end

        # The ways on, saved and ready to be asked.
        # @return [Hash] quote_id
        def ask_ways(id)
          card = @cards.of(@cards.job(id))
          Stop.new(@shop, card, @marks.fold(card.job)).ask
        end

        # @return [Hash] see the contract, JobCard
        def hand_over(id, odometer_km)
          card = @cards.of(@cards.job(id))
          marks = @marks.of(card.job)
          fold = NimbleLedger::Card::Fold.new(marks)
          HandOver.new(@shop, card, fold).take(odometer_km)
          card.job = @cards.job(id)
          page(card, marks, fold)
        end

        private

        # Whether what happened is above what was agreed, for the Counter.
        def note_stop(card, fold)
          standing = @standings.standing(card, fold)
          stopped = standing.over_limit? ? Stop.happened(standing) : nil
          before = card.job[:stopped]&.to_a
          return if stopped.to_a == before.to_a && (stopped.nil? || card.job[:so_far_cents] == standing.so_far_cents)

          values = { stopped: stopped && Sequel.pg_jsonb(stopped), so_far_cents: stopped && standing.so_far_cents }
          @shop[:jobs].where(id: card.job[:id]).update(values)
          Live.tell(@shop, "quotes")
        end

        def page(card, marks = @marks.of(card.job), fold = NimbleLedger::Card::Fold.new(marks))
          {
            "job" => shown(joined.where(Sequel[:jobs][:id] => card.job[:id]).first).merge(cold(card)),
            "revision" => card.revision,
            "sheet" => card.sheet,
            "marks" => marks.map(&:to_h),
            "state" => fold.state,
            "standing" => @standings.standing(card, fold).to_h,
            "proposals" => FoundWork.new(@shop, card, fold.state).list,
            "technicians" => technicians,
            "actuals" => fold.state["finished_at"] ? @standings.actuals(card, fold) : nil,
            **of_others(card)
          }
        end

        # What other features have to show on it.
        def of_others(card) = Feature.publish(:card_shown, @shop, quote_id: card.job[:quote_id]).reduce({}, :merge)

        # When the engine is cold enough, by how warm it came.
        def cold(card)
          job = card.job
          return { "cold_at" => nil } unless job[:arrival] && job[:arrived_at]

          car = card.work.car
          minutes = NimbleLedger::Time::Cooling.minutes(car.engine, job[:arrival], car.house)
          { "cold_at" => (job[:arrived_at] + (minutes * 60)).iso8601 }
        end

        def technicians =
          @shop[:accounts]
            .where(status_id: 2)
            .order(:name)
            .select(:id, :name, :role)
            .map { |row| { "id" => row[:id], "name" => row[:name], "role" => row[:role] } }

        def refuse_stranger(id)
          return if id.nil? || @shop[:accounts].where(id: id, status_id: 2).get(:id)

          raise Refusal.new(
                  422,
                  "unknown_technician",
                  "Nobody here has that account.",
                  details: [{ "path" => "/technician_id", "message" => "is nobody of this shop" }]
                )
        end

        SHOWN = {
          quote_number: Sequel[:quotes][:number],
          plate: Sequel[:vehicles][:plate],
          description: Sequel[:vehicles][:description],
          customer: Sequel[:customers][:name],
          phone: Sequel[:customers][:phone],
          technician: Sequel[:accounts][:name]
        }.freeze

        def joined
          jobs = Sequel[:jobs]
          @shop[:jobs]
            .join(:quotes, shop_id: jobs[:shop_id], id: jobs[:quote_id])
            .join(:vehicles, shop_id: Sequel[:quotes][:shop_id], id: Sequel[:quotes][:vehicle_id])
            .left_join(:customers, shop_id: Sequel[:vehicles][:shop_id], id: Sequel[:vehicles][:customer_id])
            .left_join(:accounts, id: jobs[:technician_id])
            .select_all(:jobs)
            .select_append(*SHOWN.map { |name, column| column.as(name) })
        end

        def shown(row)
          {
            "id" => row[:id],
            "number" => row[:number],
            "quote_id" => row[:quote_id],
            "quote_number" => row[:quote_number],
            "title" => row[:title],
            "plate" => row[:plate],
            "description" => row[:description],
            "customer" => row[:customer],
            "phone" => row[:phone],
            "technician_id" => row[:technician_id],
            "technician" => row[:technician],
            "bay" => row[:bay],
            "arrival" => row[:arrival],
            "agreed_cents" => row[:agreed_cents],
            "limit_cents" => row[:limit_cents],
            "currency" => row[:currency],
            "opened_at" => row[:created_at].iso8601,
            "arrived_at" => row[:arrived_at]&.iso8601,
            "started_at" => row[:started_at]&.iso8601,
            "finished_at" => row[:finished_at]&.iso8601,
            "handed_over_at" => row[:handed_over_at]&.iso8601,
            "called_off_at" => row[:called_off_at]&.iso8601
          }
        end
      end
    end
  end
end
