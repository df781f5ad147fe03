# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # What a customer is told when the car is handed over, in plain words: what was done, how the old plugs looked,
      # what the new ones were set and tightened to, what was found (with the pictures they may see), what was left or
      # declined, what is looked at again and when, what we stand for, when it is due again.
      class HandOverWords
        WEEK = 7 * 24 * 60 * 60 # seconds

        # words; picture: id of one the customer may see, or nil.
        Found = Struct.new(:words, :picture)

        # @param job [Hash] row
        # @param texts [Documents::Texts]
        def initialize(shop, job, texts)
          @shop = shop
          @job = job
          @texts = texts
          @card = Cards.new(shop).of(job)
          @work = @card.work
          @state = Marks.new(shop).fold(job).state
        end

        attr_reader :job

        def handed_over? = !@job[:handed_over_at].nil?

        # @return [Array<String>] "plugs, cylinders 1, 3 and 5"; work by hand as it was agreed
        def done = done_so_far + by_hand

        # The same of a job that is still in the bay, without what is only agreed.
        def done_so_far = work_done.group_by(&:work).map { |work, targets| what(work, targets) }

        # What new plugs were measured at and tightened to, those alike together.
        # @return [Array<String>] "gap 0.75 mm, 25 N·m: cylinders 1, 3 and 5"
        def fitted
          rows = @card.sheet["plugs"].filter_map { |plug| [fitted_words(plug), plug["cylinder"]] if in?(plug) }
          rows
            .reject { |words, _cylinder| words.empty? }
            .group_by(&:first)
            .map { |words, same| [words, cylinders(same.map(&:last).compact.uniq.sort)].compact.join(": ") }
        end

        # Codes that only driving clears.
        # @return [Array<String>]
        def codes
          last = @state["codes"].last or return []
          last["codes"]
            .select { |row| row["status"] == "permanent" }
            .map { |row| say("codes.stays", code: row["code"]) }
        end

        # What somebody looks at again, and by when.
        # @return [Array<String>]
        def follow_ups
          @state["found"].filter_map do |row|
            weeks = NimbleLedger::Card::Proposal.new(row["finding"], row["cylinder"], @work).follow_up_weeks or next
            day = (@job[:handed_over_at] || @shop.now) + (weeks * WEEK)
            key = row["cylinder"] ? "follow_up.plug" : "follow_up.engine"
            say(key, cylinder: row["cylinder"], day: @shop.text.date(day))
          end
        end

        # What the shop stands for, on what it fitted.
        # @return [String, nil]
        def warranty
          return nil if work_done.none? { |target| HandOver::FITTED.include?(target.work) }

          house = @work.car.house
          months = house["warranty_months"]
          return nil unless months.positive?

          distance = house["warranty_km"].positive? ? @shop.text.distance(house["warranty_km"]) : nil
          say(distance ? "stand_for.both" : "stand_for.months", months: months, distance: distance)
        end

        # How the old plugs looked.
        # @return [Array<String>]
        def plugs
          @card.sheet["plugs"].filter_map do |plug|
            read = @state["plugs"].dig(plug["key"], "read", "conditions").to_a
            next if read.empty? || plug["cylinder"].nil?

            words = read.map { |code| say("plug.#{code}") }.join(", ")
            @texts.say("page.finding.at", what: words, cylinder: plug["cylinder"])
          end
        end

        # @return [Array<Found>]
        def found
          @state["found"].map do |row|
            words = say("finding.#{row["finding"]}", words: row["words"].to_s)
            words = @texts.say("page.finding.at", what: words, cylinder: row["cylinder"]) if row["cylinder"]
            words = "#{words}: #{row["words"]}" if row["finding"] != "other" && !row["words"].to_s.empty?
            Found.new(words, row["tell"] ? row["picture"] : nil)
          end
        end

        # Work that was offered and not wanted.
        # @return [Array<String>]
        def declined = Offers::Answered.of(@shop, @job[:quote_id], "no").select_map(Sequel[:offer_scopes][:title]).uniq

        # What was left off, and why.
        # @return [Array<String>]
        def left
          labels = @card.sheet["pieces"].to_h { |row| [row["id"], row["label"]] }
          @state["left"].map { |piece, why| "#{labels.fetch(piece, piece)}: #{why}" }
        end

        # Whether the engine is only sketched.
        def provisional? = @work.car.engine.provisional?

        # When plugs are due again; nil where none was changed.
        # @return [String, nil]
        def next_due
          return nil unless @work.targets.any? { |target| target.plug? && did?(target) }

          engine = @work.car.engine
          fitted = NimbleLedger::Parts::PlugChoice.new(@work.car.catalog).fitted(engine.plug("part"))
          interval = HouseRules::House.new(@shop).interval(engine, fitted_km: fitted && fitted["interval_km"])
          km = interval.due_km(vehicle[:odometer_km])
          on = interval.due_on((@job[:handed_over_at] || @shop.now).to_date)
          parts = [distance(km), month(on, km)].compact
          parts.empty? ? nil : "#{parts.join(", ").sub(/\A[[:lower:]]/, &:upcase)}."
        end

        # A picture the customer may see.
        # @return [Hash, nil] row
        def picture(id)
          found.any? { |row| row.picture == id } ? Pictures.new(@shop).find(@job, id) : nil
        end

        def vehicle
          @vehicle ||= Vehicles::Garage.new(@shop).find(@shop[:quotes].where(id: @job[:quote_id]).get(:vehicle_id))
        end

        private

        def distance(km) = km && say("next.distance", distance: @shop.text.distance(km))
        def month(on, km) = on && say(km ? "next.months" : "next.by", date: @shop.text.month(on))

        def say(key, **values) = @texts.say("page.#{key}", **values)
        def did?(target) = work_done.include?(target)
        def work_done = NimbleLedger::Card::WorkDone.of(@work.targets, @state["done"])
        def by_hand = @work.lines.map(&:label)
        def in?(plug) = @state["plugs"].dig(plug["key"], "in")

        def fitted_words(plug)
          known = @state["plugs"][plug["key"]]
          gap = known.dig("new", "gap_mm")
          about = stated(plug["target"])
          tight = about && known.dig("in", "how") == "torque" ? about["torque_nm"] : nil
          [
            gap && say("fitted.gap", gap: @shop.text.number(gap, 2)),
            tight && say("fitted.torque", torque: @shop.text.number(tight, tight < 20 ? 1 : 0)),
            known.dig("in", "how") == "angle" ? say("fitted.angle") : nil
          ].compact.join(", ")
        end

        # What the card said of a plug where it went in.
        def stated(target)
          row =
            @card.sheet["pieces"].reverse.find do |piece|
              piece["plug"] && (piece["ref"] == target || piece["plugs"].to_a.any? { |one| one["target"] == target })
            end
          row && row["plug"]
        end

        def cylinders(numbers)
          return nil if numbers.empty?

          @texts.say("page.cylinders", count: numbers.size, list: @texts.list(numbers.map(&:to_s)))
        end

        def what(work, targets)
          return targets.map(&:label).join(", ") if work == "other"

          numbers = targets.flat_map(&:cylinders).uniq.sort
          words = @texts.say("work.#{work}")
          return words if numbers.empty?

          [words, cylinders(numbers)].join(", ")
        end
      end
    end
  end
end
