# frozen_string_literal: true

module NimbleServer
  module Documents
    # The page a customer signs, or that says what they agreed to: the scopes side by side with their way down, total
    # and limit, what could happen, and a code that leads to the same offer.
    class AuthorizationPDF < PaperPage
      GAP = 22
      CODE = 76
      HEIGHT = 92

      # @param shop [Hash] the shop's row
      # @param offer [Features::Offers::Offer]
      # @param wording [Features::Offers::Wording]
      # @param link [String, nil] where the customer's page is; nil once it is closed
      # @param head [String] the end of the shop's record, in short
      def initialize(shop, offer, wording, link:, head:)
        @shop = shop
        @offer = offer
        @wording = wording
        @texts = wording.texts
        @link = link
        @head = head
        super(paper: shop[:paper], title: say("title", number: offer.quote[:number]))
      end

      # @return [String] the PDF
      def render
        heading
        columns
        agreed? ? sealed : to_sign
        code if @link && !agreed?
        foot(@texts.say("page.care.examples"), facts)
        @pdf.render
      end

      private

      def say(key, **values) = @texts.say("paper.#{key}", **values)
      def money = @wording.money
      def agreed? = !@offer.agreed.nil?

      def facts
        revision = @offer.revision
        which =
          @texts.say(
            "page.print",
            number: @offer.quote[:number],
            revision: revision[:revision],
            date: money.date(revision[:created_at])
          )
        "#{@shop[:name]}   #{which}   #{@texts.say("page.record", head: @head)}   <page>/<total>"
      end

      def heading
        letterhead(@shop)
        row(say("title", number: @offer.quote[:number]), money.date(@offer.row[:created_at]), size: 18, style: :bold)
        @pdf.move_down 3
        row(@wording.car, @offer.row[:recipient], size: 10)
        provisional(@texts.say("provisional")) if @wording.provisional?
        rule(1)
        @pdf.move_down 8
      end

      # The scopes beside each other; what belongs to one stands in its column.
      def columns
        scopes = @wording.scopes
        room = (width - (GAP * (scopes.size - 1))) / scopes.size
        top = @pdf.cursor
        bottoms =
          scopes.each_with_index.map do |words, i|
            @pdf.bounding_box([i * (room + GAP), top], width: room) { column(words, i, room) }
            @pdf.cursor
          end
        @pdf.move_cursor_to(bottoms.min - 10)
      end

      def column(words, index, room)
        letter = @wording.scopes.size > 1 ? "#{("A".."C").to_a[index]}  " : ""
        @pdf.text "#{letter}#{words.title}", size: 13, style: :bold
        @pdf.move_down 6
        DescentDrawing.new(@pdf, words.scope.page["descent"], at: [0, @pdf.cursor], width: room, height: HEIGHT).draw
        @pdf.fill_color = INK
        @pdf.move_down HEIGHT + 6
        @pdf.text words.way, size: 8.5, color: SECOND
        @pdf.move_down 6
        @pdf.text words.why, size: 9.5, leading: 1.5
        @pdf.move_down 8
        figures(words)
        words.what_could_happen.each { |sentence| @pdf.text(sentence, size: 9, leading: 1) }
        @pdf.text "#{@texts.say("page.next.title")}: #{words.next_due}", size: 9 if words.next_due
      end

      def figures(words)
        [
          [words.total, @texts.say("page.scope.total")],
          [words.limit, say("limit")]
        ].each_with_index do |(amount, what), i|
          @pdf.text amount, size: i.zero? ? 17 : 12, style: :bold
          @pdf.text what, size: 8.5, color: SECOND
          @pdf.move_down 3
        end
        @pdf.text words.compared, size: 9 if @offer.supplement?
        @pdf.move_down 5
      end

      # What was said, as it is kept.
      def sealed
        rule(1.4)
        rule(0.6, gap: 1.5)
        @pdf.move_down 8
        @offer.scopes.select(&:answer).each { |scope| @pdf.text(sentence(scope), size: 12, style: :bold) }
        @pdf.move_down 4
        @pdf.text say("sealed", head: @head), size: 9, color: SECOND
      end

      def sentence(scope)
        answer = scope.answer
        words = @wording.scopes.find { |one| one.scope.position == scope.position }
        values = { title: words.title, at: money.date(answer[:created_at]) }
        return @texts.say("page.stands.declined", **values) if answer[:answer] == "no"

        limit = money.full(answer[:limit_cents])
        @texts.say("page.stands.authorized_by", name: answer[:name], limit: limit, **values)
      end

      # One line to tick for each scope, and one to sign.
      def to_sign
        rule(1)
        @pdf.move_down 10
        @wording
          .scopes
          .select { |words| words.scope.open? }
          .each do |words|
            top = @pdf.cursor
            @pdf.stroke_color = INK
            @pdf.line_width = 0.9
            @pdf.stroke_rectangle([0, top - 1], 10, 10)
            @pdf.bounding_box([18, top], width: width - CODE - 30) do
              @pdf.text @texts.say("page.answer.accept", title: words.title, limit: words.limit), size: 11, style: :bold
            end
            @pdf.move_down 8
          end
        @pdf.move_down 26
        lines_to_sign
        @pdf.move_down 14
        @pdf.text @texts.say("page.answer.until", until: @wording.until_day), size: 9, color: SECOND
        @pdf.text @texts.say("page.happen.limit"), size: 9, color: SECOND
      end

      def lines_to_sign
        room = (width - CODE - 30 - (2 * 14)) / 3
        top = @pdf.cursor
        %w[name date signature].each_with_index do |what, i|
          left = i * (room + 14)
          @pdf.stroke_line([left, top], [left + room, top])
          @pdf.draw_text say(what), at: [left, top - 11], size: 8.5
        end
        @pdf.move_down 14
      end

      def code
        top = @pdf.bounds.bottom + CODE + 14
        QrDrawing.draw(@pdf, @link, at: [width - CODE, top], size: CODE)
        @pdf.draw_text say("scan"), at: [width - CODE, top - CODE - 9], size: 7.5
      end
    end
  end
end
