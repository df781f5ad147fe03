# frozen_string_literal: true

require "prawn"

module NimbleServer
  module Documents
    # A designed page on the shop's paper: its type and inks, rows whose figures line up at the right, rules, the foot.
    class PaperPage
      FONTS = File.join(ROOT, "server/fonts")
      INK = "14283a"
      SECOND = "4a6070"
      MARK = "b3341b"
      STRONG_RULE = "9fb59d"

      # @param paper ["a4", "letter"]
      # @param title [String] of the document
      def initialize(paper:, title:)
        @pdf =
          Prawn::Document.new(
            page_size: paper.upcase,
            margin: [46, 50, 50, 50],
            info: {
              Title: title,
              Creator: "Nimble Ledger"
            }
          )
        @pdf.font_families.update(
          "next" => {
            normal: "#{FONTS}/AtkinsonHyperlegibleNext_400Regular.ttf",
            bold: "#{FONTS}/AtkinsonHyperlegibleNext_600SemiBold.ttf"
          },
          "mono" => {
            normal: "#{FONTS}/AtkinsonHyperlegibleMono_400Regular.ttf"
          }
        )
        @pdf.font("next", size: 10)
        @pdf.fill_color = INK
      end

      private

      def width = @pdf.bounds.width

      # Who we are, at the head of every paper a customer takes along.
      # @param shop [Hash] Features::HouseRules::Letterhead
      def letterhead(shop)
        @pdf.text shop[:name], size: 10, color: SECOND
        [shop[:reached], shop[:tax_number]].reject { |line| line.to_s.empty? }
          .each { |line| @pdf.text line, size: 8.5, color: SECOND }
        @pdf.move_down 2
      end

      # Text at the left and a figure or name at the right of one line; either wraps when it is long, and neither runs
      # into the other.
      def row(left, right, size:, style: :normal, color: INK)
        @pdf.font("next", style: style, size: size) do
          right_width = [@pdf.width_of(right, size: size, style: style) + 1, width / 2].min
          top = @pdf.cursor
          bottoms =
            [
              [left, 0, width - right_width - 12, :left],
              [right, width - right_width, right_width, :right]
            ].map { |text, at, room, align| block(text, at, top, room, align, color) }
          @pdf.move_cursor_to(bottoms.min)
          @pdf.fill_color INK
        end
      end

      # @return [Float] where the text ends
      def block(text, at, top, room, align, color)
        @pdf.bounding_box([at, top], width: room) { @pdf.text(text.empty? ? " " : text, align: align, color: color) }
        @pdf.cursor
      end

      def rule(weight, gap: 4)
        @pdf.move_down gap
        @pdf.stroke_color STRONG_RULE
        @pdf.line_width = weight
        @pdf.stroke_horizontal_rule
      end

      # Said under the heading of whatever shows figures of an engine that is only sketched.
      # @param words [String]
      def provisional(words)
        @pdf.move_down 4
        @pdf.text words, size: 10, style: :bold, color: MARK
      end

      # What stands at the foot of every page.
      # @param caution [String]
      # @param facts [String] with <page> and <total> in it
      def foot(caution, facts)
        @pdf.repeat(:all) { @pdf.draw_text(caution, at: [0, -22], size: 7.5) }
        @pdf.number_pages(facts, at: [0, -30], size: 7.5, align: :left, color: SECOND)
      end
    end
  end
end
