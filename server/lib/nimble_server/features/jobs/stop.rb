# frozen_string_literal: true

module NimbleServer
  module Features
    module Jobs
      # Trouble above the limit: the ways on as scopes of the job's quote, saved, ready to be asked with one press
      # (NimbleLedger::Card::WaysOn). Each is the whole of what is then done, with what happened in it.
      class Stop
        # @param card [Cards::Card]
        # @param fold [NimbleLedger::Card::Fold]
        def initialize(shop, card, fold)
          @shop = shop
          @card = card
          @standing = Standings.new(shop).standing(card, fold)
          @ways = NimbleLedger::Card::WaysOn.new(card.request, @standing)
        end

        # Saves them as the next revision of the quote.
        # @return [Hash] quote_id
        # @raise [Refusal] 409 where nothing happened that is not agreed to already
        def ask
          ways = @ways.list
          raise Refusal.new(409, "nothing_happened", "Nothing on this card goes beyond what was agreed.") if ways.empty?

          @shop.transaction do
            desk = Quotes::Desk.new(@shop)
            quote = desk.find(@card.job[:quote_id])
            draft = Quotes::Drafts.new(@shop).of(quote)
            content = content(quote, ways)
            stored = desk.store_draft(quote[:id], draft[:version], content, quote[:latest_revision])
            desk.save(quote[:id], stored.at_once["draft"]["version"], stored.at_once["priced_with"])
            { "quote_id" => quote[:id] }
          end
        end

        # What happened, as the Counter says it.
        # @return [Array<Hash>] kind, label, cylinders
        def self.happened(standing)
          standing.fought.map do |one|
            target = one.of if one.of.is_a?(NimbleLedger::Profile::Target)
            {
              "kind" => one.kind,
              "label" => target ? target.label : one.of.what,
              "cylinders" => target ? target.cylinders : []
            }
          end
        end

        private

        def content(quote, ways)
          newest = JSON.parse(JSON.generate(Quotes::Revisions.new(@shop).newest(quote)[:content].to_h))
          newest.except("drop_off", "promised").merge(
            "scopes" => ways.map { |way| scope(way) },
            "active" => 0,
            "arrival" => "cold"
          )
        end

        def scope(way)
          {
            "name" => Documents::WayOnWords.title(texts, way.name, take_out: @ways.to_take_out?),
            "cylinders" => [],
            "works" => [],
            "extras" => way.targets,
            "tried" => way.tried,
            "soak" => @card.request["soak"] || "none",
            "pins" => @card.request["pins"] || {},
            "hours" => hours(way),
            "discount" => @card.request["discount"],
            "lines" => way.lines.map { |line| entered(line) },
            "way" => way.name,
            "take_out" => @ways.to_take_out?,
            "places" => places(way),
            "trouble" => way.trouble,
            "limit_cents" => way.limit_cents,
            "to_go" => way.to_go.round
          }.compact
        end

        # Cylinders a way is about: whose old plug stays in, or whose is not as it should be.
        def places(way)
          { "leave" => @ways.left_cylinders, "stop" => @ways.open_cylinders }.fetch(way.name, [])
        end

        def hours(way)
          return nil if way.by_tenths.zero? || way.targets.empty?

          words = Stop.happened(@standing).map { |one| one["label"] }.uniq.join(", ")
          {
            "by_hours" => way.by_tenths / 10.0,
            "reason" => "what happened: #{words}"[0, 120],
            "targets" => way.targets
          }
        end

        # A line as an advisor would have entered it, at the same cents.
        def entered(line)
          row = { "label" => line.label, "class" => line.tax_class, "quantity" => line.quantity }
          each = row.merge("each_cents" => line.each_cents)
          NimbleLedger::Price::HandLine.of(each) == line ? each : row.merge("quantity" => 1, "each_cents" => line.cents)
        end

        def texts = @texts ||= Documents::Texts.of(@shop.profile[:locale])
      end
    end
  end
end
