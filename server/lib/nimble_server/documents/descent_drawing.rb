# frozen_string_literal: true

module NimbleServer
  module Documents
    # The descent as vectors on a Prawn page: minutes across to scale, layers down. Down-strokes are hatched one way,
    # up-strokes the other, waiting is dotted, so that it reads in gray print too.
    class DescentDrawing
      DEPTHS = %w[dfece6 c3dcda 9fc6cb 74a9b6 4c869b 2c627d].freeze
      INK = "14283a"
      RULE = "cfdccb"
      HATCH = 3.2

      # @param pdf [Prawn::Document]
      # @param descent [Hash] of the sheet
      def initialize(pdf, descent, at:, width:, height:)
        @pdf = pdf
        @descent = descent
        @left, @top = at
        @scale = width / [descent["length_minutes"], 1].max
        @width = width
        @levels = [descent["levels"], 2].max
        @house = 8
        @row = (height - @house - 4) / @levels
      end

      def draw
        rules
        @descent["strokes"].each { |stroke| stroke["depth"].zero? ? above(stroke) : below(stroke) }
        @pdf.stroke_color = INK
        @pdf.line_width = 1
        @pdf.stroke_line([@left, surface], [@left + @width, surface])
      end

      private

      def surface = @top - @house

      def rules
        @pdf.stroke_color = RULE
        @pdf.line_width = 0.4
        (1..@levels).each do |i|
          @pdf.stroke_line([@left, surface - (i * @row)], [@left + @width, surface - (i * @row)])
        end
      end

      def x(minutes) = @left + (minutes * @scale)

      def above(stroke)
        @pdf.fill_color = INK
        @pdf.fill_rectangle([x(stroke["start"]), surface + 5], stroke["minutes"] * @scale, 5)
      end

      def below(stroke)
        left = x(stroke["start"])
        width = stroke["minutes"] * @scale
        depth = stroke["depth"] * @row
        return waiting(left, width, depth) if stroke["kind"] == "wait"

        work = stroke["kind"] == "work"
        @pdf.fill_color = work ? INK : DEPTHS[[stroke["depth"] - 1, 5].min]
        @pdf.fill_rectangle([left, surface], width, depth)
        hatch(left, width, surface - depth + @row, stroke["kind"] == "remove" ? 1 : -1) unless work || width < 2.5
        outline(left, width, depth)
        number(stroke, left, width, depth) if work
      end

      def outline(left, width, depth)
        @pdf.stroke_color = INK
        @pdf.line_width = 0.5
        @pdf.stroke_rectangle([left, surface], width, depth)
      end

      def waiting(left, width, depth)
        @pdf.stroke_color = INK
        @pdf.line_width = 0.6
        @pdf.dash([1, 2])
        @pdf.stroke_rectangle([left, surface], width, depth)
        @pdf.undash
      end

      # Diagonals in the lowest band of the stroke.
      def hatch(left, width, top, slope)
        @pdf.save_graphics_state do
          @pdf.rectangle([left, top], width, @row)
          @pdf.add_content("W n")
          @pdf.stroke_color = INK
          @pdf.line_width = 0.35
          from = left - @row
          while from < left + width + @row
            ends = slope.positive? ? [[from, top], [from + @row, top - @row]] : [[from, top - @row], [from + @row, top]]
            @pdf.stroke_line(*ends)
            from += HATCH
          end
        end
      end

      def number(stroke, left, width, depth)
        return unless stroke["cylinder"] && width > 7

        @pdf.fill_color = "ffffff"
        @pdf.font("next", style: :bold, size: 8) do
          @pdf.draw_text(stroke["cylinder"].to_s, at: [left + (width / 2) - 2.4, surface - depth + 3])
        end
      end
    end
  end
end
