# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # What a customer is told when the car is handed over, in plain words: what was done, how the old plugs looked,
      # what was found (with the pictures they may see), what was declined, when it is due again.
      class HandOverWords
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

        # @return [Array<String>] "plugs, cylinders 1, 3 and 5"
        def done
          HandOver.new(@shop, @card, @state).done.group_by(&:work).map { |work, targets| what(work, targets) }
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
          return nil unless done.any? && @work.targets.any? { |target| target.plug? && did?(target) }

          interval = HouseRules::House.new(@shop).interval(@work.car.engine)
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
        def did?(target) = @state["done"].key?(NimbleLedger::Time::PieceId.work(target.id).to_s)

        def what(work, targets)
          return targets.map(&:label).join(", ") if work == "other"

          numbers = targets.flat_map(&:cylinders).uniq.sort
          words = @texts.say("work.#{work}")
          return words if numbers.empty?

          [words, @texts.say("page.cylinders", count: numbers.size, list: @texts.list(numbers.map(&:to_s)))].join(", ")
        end
      end
    end
  end
end
