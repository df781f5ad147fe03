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
        super(paper: shop[:paper], title: "Quote #{quote[:number]}")
      end

      # @return [String] the PDF
      def render
        heading
        @frozen["scopes"].each_with_index { |scope, i| scope_section(scope, i) }
        footing
        @pdf.render
      end

      private

      def heading
        @pdf.text @shop[:name], size: 10, color: SECOND
        @pdf.move_down 2
        row(
          "Quote #{@quote[:number]}",
          @text.date(Time.iso8601(@frozen["revision"]["created_at"])),
          size: 18,
          style: :bold
        )
        @pdf.move_down 3
        facts = [
          "#{@vehicle["plate"]}  #{@vehicle["description"]}#{", #{@vehicle["year"]}" if @vehicle["year"]}",
          @vehicle["odometer_km"] && @text.distance(@vehicle["odometer_km"])
        ].compact.join("  ·  ")
        row(facts, @vehicle["customer"].to_s, size: 10)
        rule(1)
      end

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
        cautions(page["cautions"] || [])
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
            label = broken["broken"] == 1 ? "If a plug breaks" : "If #{broken["broken"]} plugs break"
            row(
              "#{label}  (#{@text.number((broken["chance"] * 100).round(1))} in 100 such jobs)",
              "+#{@text.plain(broken["extra_cents"])}",
              size: 9.5
            )
            @pdf.move_down 2
          end
        row("Not above, without a call", @text.full(trouble["not_above_cents"]), size: 11, style: :bold)
      end

      def descent(descent, answer)
        @pdf.move_down 10
        row("Down, work, and back up", "#{descent["length_minutes"].round} minutes, to scale", size: 8.5, color: SECOND)
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
          "#{minutes["remove"]} min off   #{minutes["work"]} min work   #{minutes["refit"]} min on   " \
            "#{minutes["house"]} min receiving, checks, road test",
          "half of such jobs within #{hours["p50"]} h, 80 of 100 within #{hours["p80"]} h"
        ]
      end

      # What to take care of, at the step it belongs to; earlier revisions keep the words only.
      def cautions(rows)
        rows.each do |caution|
          at, text = caution.is_a?(Hash) ? [caution["at"].join(", "), caution["text"]] : ["", caution]
          @pdf.text [at, text].reject(&:empty?).join(": "), size: 8.5, leading: 1, color: SECOND
        end
        @pdf.move_down 6 if rows.any?
      end

      def lines(answer)
        price = answer["price"]
        rule(0.5)
        price["lines"].each { |line| line_row(line) }
        rule(0.8)
        @pdf.move_down 3
        row(
          price["incomplete"] ? "Total, incomplete: a part has no price yet" : "Total",
          @text.full(price["total_cents"]),
          size: 16,
          style: :bold
        )
        rule(0.6, gap: 1)
        rule(0.6, gap: 1)
      end

      def line_row(line)
        @pdf.start_new_page if @pdf.cursor < 40
        @pdf.move_down 2.5
        detail =
          (
            if line["kind"] == "labor"
              "#{@text.number(line["quantity"], 1)} h at #{@text.plain(line["unit_cents"])}"
            else
              quantity(line)
            end
          )
        row([line["label"], own_number(line), detail].compact.join("   "), @text.plain(line["cents"]), size: 9.5)
        @pdf.stroke_color "cfdccb"
        @pdf.line_width = 0.3
        @pdf.stroke_horizontal_rule
      end

      # The part's number where its label says something else.
      def own_number(line) = line["part"] == line["label"] ? nil : line["part"]

      def quantity(line)
        return nil if line["quantity"] == 1

        "#{@text.number(line["quantity"])} × #{@text.plain(line["unit_cents"])}"
      end

      def footing
        foot(
          "Times are examples from the shop's library. The maker's service information and a technician's judgment " \
            "come first.",
          "#{@shop[:name]}   Quote #{@quote[:number]}, revision #{@frozen["revision"]["revision"]}   record #{@head}" \
            "   page <page> of <total>"
        )
      end
    end
  end
end
