# frozen_string_literal: true

module NimbleServer
  module Documents
    # A bill or credit note on paper: to whom, for which car and day, line by line, taxes by rate, what is paid and
    # owed. Drawn from what was frozen when it was issued.
    class BillPDF < PaperPage
      # @param shop [Hash] the shop's row
      # @param bill [Hash] row of bills, with :job, :paid_cents and :credits, the bill it puts right
      # @param vehicle [Hash] row
      # @param texts [Texts]
      # @param head [String] the end of the shop's record, in short
      def initialize(shop, bill, vehicle, texts, head:)
        @shop = shop
        @bill = bill
        @vehicle = vehicle
        @texts = texts
        @head = head
        @answer = bill[:answer].to_h
        @text =
          ShopText.new(
            currency: bill[:currency],
            exponent: bill[:currency_exponent],
            **shop.slice(:locale, :distance_unit, :time_zone)
          )
        super(paper: shop[:paper], title: title)
      end

      # @return [String] the PDF
      def render
        heading
        lines
        total
        taxes
        paid
        foot(say("new"), facts)
        @pdf.render
      end

      private

      def say(key, **values) = @texts.say("paper.bill.#{key}", **values)
      def title = say(@bill[:kind], number: @bill[:number])

      def heading
        letterhead(@shop)
        row(title, @text.day(@bill[:issued_on]), size: 18, style: :bold)
        @pdf.move_down 6
        @pdf.text [@bill[:payer], @bill[:address]].reject(&:empty?).join("\n"), size: 11, leading: 2
        @pdf.move_down 8
        row(car, say("supplied", day: @text.day(@bill[:supplied_on])), size: 10)
        credited
        rule(1)
      end

      def car
        stands = @vehicle[:odometer_km] && @text.distance(@vehicle[:odometer_km])
        [@vehicle[:plate], @vehicle[:description], stands, say("job", number: @bill[:job][:number])].compact.join(
          "  ·  "
        )
      end

      def credited
        return unless @bill[:credits]

        @pdf.move_down 4
        values = {
          number: @bill[:credits][:number],
          day: @text.day(@bill[:credits][:issued_on]),
          reason: @bill[:reason]
        }
        @pdf.text say("credits", **values), size: 10.5
      end

      def lines
        @answer["lines"]
          .reject { |line| line["kind"] == "tax" || nothing?(line) }
          .each do |line|
            @pdf.start_new_page if @pdf.cursor < 60
            @pdf.move_down 3
            row([label(line), line["part"]].compact.join("   "), @text.plain(line["cents"]), size: 10)
            rule(0.3, gap: 2)
          end
      end

      # Consumables that are in the supplies cost nothing of their own, and need no line.
      def nothing?(line) = line["kind"] == "consumable" && line["cents"].zero?

      # Lines the house names itself say so in its own words; the others in the language of the paper.
      def label(line)
        many = line["quantity"] && line["quantity"] != 1 ? "#{@text.number(line["quantity"])} × " : ""
        return say("labor", hours: @text.number(@answer["hours"], 1)) if line["kind"] == "labor"
        return say(line["kind"].tr("-", "_")) if %w[supplies above-limit].include?(line["kind"])

        "#{many unless line["kind"] == "diagnosis"}#{line["label"]}"
      end

      def taxes
        @answer["taxes"].each do |tax|
          values = {
            label: tax["label"],
            percent: @text.number(tax["percent"]),
            net: @text.plain(tax["net_cents"]),
            tax: @text.plain(tax["cents"])
          }
          @pdf.move_down 2
          @pdf.text say(contained? ? "tax_contained" : "tax", **values), size: 9.5, color: SECOND
        end
      end

      def contained? = @answer.key?("included_tax_cents")

      def total
        rule(0.8)
        @pdf.move_down 3
        @answer["lines"]
          .select { |line| line["kind"] == "tax" }
          .each { |line| row(line["label"], @text.plain(line["cents"]), size: 10) }
        row(say("total"), @text.full(@bill[:total_cents]), size: 16, style: :bold)
        2.times { rule(0.6, gap: 1) }
      end

      def paid
        return if @bill[:kind] == "credit-note"

        @pdf.move_down 8
        owed = @bill[:total_cents] - @bill[:paid_cents]
        row(say("paid"), @text.plain(@bill[:paid_cents]), size: 10) unless @bill[:paid_cents].zero?
        row(standing(owed), owed.zero? ? "" : @text.full(owed.abs), size: 12, style: :bold)
      end

      def standing(owed)
        return say("settled") if owed.zero?

        owed.positive? ? say("owed", day: @text.day(@bill[:due_on])) : say("back")
      end

      def facts = "#{@shop[:name]}   #{title}   #{@texts.say("page.record", head: @head)}   <page>/<total>"
    end
  end
end
