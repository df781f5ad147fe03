# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # One offered scope in plain words, from what was frozen of it: what it is, why it costs this, what could happen,
      # when it is due again. No jargon, and nothing computed anew.
      class ScopeWords
        MOST_BROKEN = 3
        MOST_LAYERS = 4

        # @param scope [OfferedScope]
        # @param texts [Documents::Texts]
        def initialize(shop, offer, scope, texts)
          @shop = shop
          @offer = offer
          @scope = scope
          @texts = texts
        end

        attr_reader :scope

        # As the advisor called it; else what is done at which cylinders. A way on after trouble has a name of its own.
        def title
          return Documents::WayOnWords.title(@texts, way_on, take_out: content["take_out"]) if way_on
          return scope.title if !scope.name.empty? || @texts.language == "en"

          works = content["works"].map { |work| @texts.say("work.#{work}") }
          numbers = content["cylinders"].sort
          [@texts.list(works), numbers.any? ? cylinders(numbers) : nil].compact.join(", ")
        end

        def total = money.full(scope.total_cents)
        def limit = money.full(scope.limit_cents)
        def before = money.full(scope.before_cents)
        def more = money.full((scope.total_cents - scope.before_cents).abs)

        # Whether a supplement comes to less than what was agreed before.
        def less? = scope.total_cents < scope.before_cents

        # How a supplement compares with what was agreed before.
        def compared = @texts.say(less? ? "page.lessens" : "page.adds", more: more, before: before)

        # Why it costs this, in a sentence or two: what lies over it. In English as the quote explains it.
        def why
          return way_note if way_on

          explained = scope.page.dig("explanation", "short")
          @texts.language == "en" && explained ? explained : layers
        end

        # The minutes down, of work, and back up.
        def way
          minutes = estimate["plan"]["minutes"]
          @texts.say(
            "page.why.minutes",
            down: minutes["remove"].round,
            work: minutes["work"].round,
            up: minutes["refit"].round
          )
        end

        # What lies over the work, from the outermost in, what takes longest named; a layer over some of the cylinders
        # names them.
        def layers
          over = layers_over
          return @texts.say("page.why.open") if over.empty?

          longest = over.max_by(MOST_LAYERS) { |layer, _numbers| layer["off_minutes"] + layer["on_minutes"] }
          named = (over & longest).map { |layer, numbers| named(layer, numbers) }
          named << @texts.say("page.why.more", count: over.size - MOST_LAYERS) if over.size > MOST_LAYERS
          @texts.say("page.why.under", layers: @texts.list(named))
        end

        def hours = @texts.say("page.why.hours", hours: money.number(estimate["hours"]["quoted"], 1))

        # What could happen; nothing where the odds are not known.
        # @return [Array<String>]
        def what_could_happen
          return [] unless trouble

          said =
            trouble["allowance"].first(MOST_BROKEN).select { |row| row["chance"] >= 0.001 }.map { |row| broken(row) }
          said << @texts.say("page.happen.mishaps") if trouble["mishaps"].any?
          said.empty? ? [@texts.say("page.happen.none")] : said
        end

        # When the car is ready, on the shop's wall clock: what was promised, else as it was reckoned when the revision
        # was saved; once that has passed, nothing.
        # @return [String, nil]
        def ready
          at = booked&.pick_up || scope.page["ready"]
          at && DateTime.parse(at) > money.wall(@shop.now) ? money.moment(at) : nil
        end

        # The time the quote's work has on the shop's board.
        # @return [#arrives, #pick_up, nil] local instants
        def booked = @booked ||= Feature.publish(:time_asked, @shop, quote_id: @offer.quote[:id]).compact.first

        # When to bring the car, where a time is booked and still to come.
        # @return [String, nil]
        def bring
          at = booked&.arrives
          at && DateTime.parse(at) > money.wall(@shop.now) ? money.moment(at) : nil
        end

        # When it is due again, in distance and in time; nil where no plug is changed or nothing is known.
        # @return [String, nil]
        def next_due
          return nil unless plugs?

          engine = Library.engine(@shop, @offer.revision[:engine_profile_id])
          interval = HouseRules::House.new(@shop).interval(engine)
          km = interval.due_km(scope.request.dig("history", "odometer_km"))
          on = interval.due_on(@shop.now.to_date)
          parts = [
            km && @texts.say("page.next.distance", distance: money.distance(km)),
            on && @texts.say(km ? "page.next.months" : "page.next.by", date: money.month(on))
          ].compact
          parts.empty? ? nil : "#{parts.join(", ").sub(/\A[[:lower:]]/, &:upcase)}."
        end

        # Which taxes the total holds, and whether prices contain them.
        # @return [String, nil]
        def taxes = NimbleServer::Documents::TaxWords.of(scope.request["house"].to_h, @texts, money)

        # What the months after bring with it; nil where the advisor does not tell.
        # @return [String, nil]
        def months_after
          ahead = scope.page["ahead"] or return nil
          values = {
            months: money.number(ahead["months"], 0),
            sure: (ahead["no_comeback"] * 100).round,
            total: money.full(ahead["total_cents"])
          }
          @texts.say("page.scope.after", **values)
        end

        # Whether plugs are touched: the engine has to be cold for them.
        def plugs? = content["works"].include?("plug")

        # Which of the ways on after trouble it is.
        # @return ["finish", "leave", "stop", nil]
        def way_on = content["way"]

        # What we owe of it, where something is under our warranty.
        # @return [String, nil]
        def warranty
          owed = scope.page.dig("warranty", "labels").to_a
          return nil if owed.empty?

          @texts.say(owed.size == estimate["plan"]["ways"].size ? "page.warranty.all" : "page.warranty.some")
        end

        # What finding out costs, where it is sold: what it buys, and what is owed without the repair.
        # @return [String, nil]
        def diagnosis
          sold = scope.page["diagnosis"] or return nil
          buys = @offer.revision[:content].to_h.dig("diagnosis", "buys").to_s
          values = { amount: money.full(sold["owed_cents"]), buys: buys }
          said = @texts.say(sold["credited"] ? "page.diagnosis.credited" : "page.diagnosis.sold", **values)
          buys.empty? ? said : "#{said} #{@texts.say("page.diagnosis.buys", **values)}"
        end

        # Sentences to read out.
        # @return [Array<String>]
        def spoken
          [
            @texts.say("phone.propose", title: title),
            why,
            supplement,
            @texts.say("phone.price", total: total, limit: limit),
            warranty,
            diagnosis,
            trouble_spoken,
            bring && @texts.say("phone.bring", bring: bring),
            ready && @texts.say("phone.ready", ready: ready),
            @texts.say("phone.ask", limit: limit)
          ].compact
        end

        private

        # What a way on means: what if it fails, what stays in, whether the car can be driven.
        def way_note
          numbers = content["places"].to_a
          if way_on == "finish"
            return @texts.say("page.way.finish_note") unless content["take_out"]

            fails = scope.request.dig("house", "extraction_fails").to_f * 100
            return @texts.say("page.way.finish_out_note", chance: money.number(fails.round(1)))
          end
          return @texts.say("page.way.closed_note") if numbers.empty?

          @texts.say("page.way.#{way_on}_note", cylinders: cylinders(numbers))
        end

        def estimate = scope.estimate
        def trouble = scope.page["trouble"]
        def content = @offer.revision[:content].to_h["scopes"][scope.position]

        # Layers of the plan that lie over more than one coil's own, with those of the work's cylinders they lie over.
        # @return [Array<[Hash, Array<Integer>]>]
        def layers_over
          numbers = content["cylinders"]
          scope.page["layers"]
            .to_a
            .select { |layer| layer["in_plan"] && layer["cylinder"].nil? }
            .map { |layer| [layer, layer["over"].to_a & numbers] }
            .reject { |_layer, over| over.empty? }
        end

        def named(layer, numbers)
          label = plain(layer["label"])
          numbers.size == content["cylinders"].size ? label : "#{label} (#{cylinders(numbers.sort)})"
        end

        def money = @money ||= Wording.new(@shop, @offer).money

        # Labels are written for the bay: what follows a comma is for there; within a sentence they begin small unless
        # they are a name of letters.
        def plain(label)
          label = label.split(",").first
          return label if @texts.language == "de" || label[0, 2].match?(/\A[[:upper:]]{2}/)

          label.sub(/\A[[:upper:]]/, &:downcase)
        end

        def cylinders(numbers) =
          @texts.say("page.cylinders", count: numbers.size, list: @texts.list(numbers.map(&:to_s)))

        def broken(row)
          @texts.say(
            "page.happen.broken",
            count: row["broken"],
            chance: money.number((row["chance"] * 100).round(1)),
            extra: money.full(row["extra_cents"])
          )
        end

        def trouble_spoken
          row = trouble && trouble["allowance"].first
          return nil unless row && row["chance"] >= 0.01

          @texts.say(
            "phone.trouble",
            extra: money.full(row["extra_cents"]),
            chance: money.number((row["chance"] * 100).round(1))
          )
        end

        def supplement
          return nil unless @offer.supplement?

          @texts.say(less? ? "phone.reduction" : "phone.supplement", before: before, more: more)
        end
      end
    end
  end
end
