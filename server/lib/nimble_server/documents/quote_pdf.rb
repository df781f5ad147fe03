# frozen_string_literal: true

module NimbleServer
  module Documents
    # The quote on paper: what is proposed, why it costs this (the descent), the lines, the total. Drawn from a frozen
    # revision only.
    class QuotePDF < PaperPage
      # @param shop [Hash] the shop's row
      # @param frozen [Hash] Features::Quotes::Desk#revision
      # @param head [String] the end of the shop's record, in short
      def initialize(shop, quote, vehicle, frozen, head:)
        @head = head
        @shop = shop
        @quote = quote
        @vehicle = vehicle
        @frozen = frozen
        row = frozen["revision"]
        house = frozen["scopes"].first["request"]["house"]
        @text =
          ShopText.new(
            locale: shop[:locale],
            currency: row["currency"],
            exponent: house["currency_exponent"],
            distance_unit: shop[:distance_unit],
            time_zone: shop[:time_zone]
          )
        @words = Texts.of(shop[:locale])
        super(paper: shop[:paper], title: say("title", number: quote[:number]))
      end

      # @return [String] the PDF
      def render
        heading
        @frozen["scopes"].each_with_index { |scope, i| scope_section(scope, i) }
        footing
        @pdf.render
      end

      private

      def say(key, **values) = @words.say("paper.quote.#{key}", **values)

      def heading
        letterhead(@shop)
        row(
          say("title", number: @quote[:number]),
          @text.date(Time.iso8601(@frozen["revision"]["created_at"])),
          size: 18,
          style: :bold
        )
        @pdf.move_down 3
        row(car, @vehicle["customer"].to_s, size: 10)
        provisional(@words.say("provisional")) if sketched?
        rule(1)
      end

      def car
        [
          "#{@vehicle["plate"]}  #{@vehicle["description"]}#{", #{@vehicle["year"]}" if @vehicle["year"]}",
          @vehicle["odometer_km"] && @text.distance(@vehicle["odometer_km"])
        ].compact.join("  ·  ")
      end

      def sketched? = @frozen["scopes"].any? { |scope| scope["request"]["engine"]["provisional"] }

      def scope_section(scope, index)
        page = scope["page"]
        @pdf.start_new_page if @pdf.cursor < 330
        @pdf.move_down 10
        title = scope["name"].to_s.empty? ? page["title"] : scope["name"]
        letter = @frozen["scopes"].size > 1 ? "#{("A".."C").to_a[index]}  " : ""
        @pdf.text "#{letter}#{title}", size: 13, style: :bold
        @pdf.move_down 3
        @pdf.text page["explanation"]["short"], leading: 2, color: INK
        descent(page["descent"], scope["answer"])
        lines(scope["answer"])
        what_ifs(page["trouble"])
      end

      # What could happen, and up to what amount nobody has to call.
      def what_ifs(trouble)
        return unless trouble

        @pdf.move_down 10
        trouble["allowance"]
          .first(3)
          .each do |broken|
            chance = @text.number((broken["chance"] * 100).round(1))
            row(
              say("broken", count: broken["broken"], chance: chance),
              "+#{@text.plain(broken["extra_cents"])}",
              size: 9.5
            )
            @pdf.move_down 2
          end
        row(say("limit"), @text.full(trouble["not_above_cents"]), size: 11, style: :bold)
      end

      def descent(descent, answer)
        @pdf.move_down 10
        row(say("descent"), say("scale", minutes: descent["length_minutes"].round), size: 8.5, color: SECOND)
        height = 96
        @pdf.move_down 4
        DescentDrawing.new(@pdf, descent, at: [0, @pdf.cursor], width: width, height: height).draw
        @pdf.fill_color = INK
        @pdf.move_down height + 6
        row(*effort_of(answer), size: 8.5, color: SECOND)
        @pdf.move_down 8
      end

      # The minutes by kind, and the range they lie in.
      def effort_of(answer)
        minutes = answer["plan"]["minutes"].transform_values(&:round)
        hours = answer["hours"].slice("p50", "p80").transform_values { |value| @text.number(value, 1) }
        [
          say("minutes", **minutes.slice("remove", "work", "refit", "house").transform_keys(&:to_sym)),
          say("range", half: hours["p50"], most: hours["p80"])
        ]
      end

      def lines(answer)
        price = answer["price"]
        rule(0.5)
        price["lines"].each { |line| line_row(line) }
        rule(0.8)
        @pdf.move_down 3
        row(say(price["incomplete"] ? "incomplete" : "total"), @text.full(price["total_cents"]), size: 16, style: :bold)
        rule(0.6, gap: 1)
        rule(0.6, gap: 1)
        taxes(answer)
      end

      def taxes(answer)
        scope = @frozen["scopes"].find { |one| one["answer"].equal?(answer) }
        said = TaxWords.of(scope["request"]["house"], @words, @text) or return
        @pdf.move_down 3
        @pdf.text said, size: 8.5, color: SECOND
      end

      def line_row(line)
        @pdf.start_new_page if @pdf.cursor < 40
        @pdf.move_down 2.5
        row([label(line), own_number(line), detail(line)].compact.join("   "), @text.plain(line["cents"]), size: 9.5)
        @pdf.stroke_color "cfdccb"
        @pdf.line_width = 0.3
        @pdf.stroke_horizontal_rule
      end

      # Lines the house names itself say so in its own words; the others in the language of the paper.
      def label(line)
        case line["kind"]
        when "labor", "supplies"
          say(line["kind"])
        when "diagnosis"
          say(line["cents"].negative? ? "credited" : "diagnosis")
        else
          line["label"]
        end
      end

      def detail(line)
        case line["kind"]
        when "labor"
          say("hours", hours: @text.number(line["quantity"], 1), rate: @text.plain(line["unit_cents"]))
        when "warranty"
          say("warranty")
        else
          quantity(line)
        end
      end

      # The part's number where its label says something else.
      def own_number(line) = line["part"] == line["label"] ? nil : line["part"]

      def quantity(line)
        return nil if line["quantity"] == 1

        "#{@text.number(line["quantity"])} × #{@text.plain(line["unit_cents"])}"
      end

      def footing
        foot(
          say("examples"),
          say(
            "foot",
            shop: @shop[:name],
            number: @quote[:number],
            revision: @frozen["revision"]["revision"],
            head: @head,
            page: "<page>",
            total: "<total>"
          )
        )
      end
    end
  end
end
