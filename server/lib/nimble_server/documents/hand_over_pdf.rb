# frozen_string_literal: true

module NimbleServer
  module Documents
    # What the customer takes along with the car: what was done, how the old plugs looked, what was found and declined,
    # when it is due again.
    class HandOverPDF < PaperPage
      # @param shop [Hash] the shop's row
      # @param told [Features::Jobs::HandOverWords]
      # @param texts [Texts]
      # @param head [String] the end of the shop's record, in short
      def initialize(shop, told, texts, head:)
        @shop = shop
        @told = told
        @texts = texts
        @head = head
        @text = ShopText.new(**shop.slice(:locale, :distance_unit, :time_zone))
        super(paper: shop[:paper], title: say("title", number: told.job[:number]))
      end

      # @return [String] the PDF
      def render
        heading
        listed("done", @told.done)
        listed("plugs", @told.plugs)
        listed("fitted", @told.fitted)
        listed("found", @told.found.map(&:words))
        listed("left", @told.left)
        listed("declined", @told.declined)
        listed("codes", @told.codes)
        listed("follow_ups", @told.follow_ups)
        listed("warranty", [@told.warranty].compact)
        due
        foot(@texts.say("page.care.examples"), facts)
        @pdf.render
      end

      private

      def say(key, **values) = @texts.say("paper.hand_over.#{key}", **values)

      def heading
        car = @told.vehicle
        letterhead(@shop)
        row(
          say("title", number: @told.job[:number]),
          @text.date(@told.job[:handed_over_at] || Time.now),
          size: 18,
          style: :bold
        )
        @pdf.move_down 3
        stands = car[:odometer_km] ? @text.distance(car[:odometer_km]) : ""
        row("#{car[:plate]}  #{car[:description]}  ·  #{stands}", car[:customer_name].to_s, size: 10)
        provisional(@texts.say("provisional")) if @told.provisional?
        rule(1)
      end

      def listed(key, lines)
        return if lines.empty?

        @pdf.move_down 12
        @pdf.text say(key), size: 12, style: :bold
        lines.each do |line|
          @pdf.move_down 3
          @pdf.text line, size: 10.5, leading: 1
        end
      end

      def due
        next_due = @told.next_due or return
        @pdf.move_down 14
        rule(0.6)
        @pdf.move_down 6
        row(@texts.say("page.next.title"), next_due, size: 12, style: :bold)
      end

      def facts = "#{@shop[:name]}   #{@texts.say("page.record", head: @head)}   <page>/<total>"
    end
  end
end
