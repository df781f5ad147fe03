# frozen_string_literal: true

module NimbleServer
  module Documents
    # The descent as an SVG for a page without scripts: minutes across to scale, layers down, hatched one way down and
    # the other way up, waiting dotted. Only numbers go into it.
    class DescentSVG
      DEPTHS = %w[dfece6 c3dcda 9fc6cb 74a9b6 4c869b 2c627d].freeze
      WIDTH = 354.0
      HEIGHT = 108.0
      HOUSE = 8.0
      THIN = 2.5

      # @param descent [Hash] of the sheet: length_minutes, levels, strokes
      # @param label [String] what it says to whoever cannot see it
      def initialize(descent, label:)
        @descent = descent
        @label = label
        @scale = WIDTH / [descent["length_minutes"], 1].max
        @row = (HEIGHT - HOUSE - 4) / [descent["levels"], 2].max
      end

      # @return [String]
      def to_s
        "<svg class=\"descent\" viewBox=\"0 0 #{WIDTH.round} #{HEIGHT.round}\" role=\"img\" " \
          "aria-label=\"#{ERB::Util.html_escape(@label)}\">#{patterns}#{rules}#{strokes}" \
          "<path d=\"M0 #{HOUSE}H#{WIDTH}\" class=\"surface\"/></svg>"
      end

      private

      def patterns
        hatch = ->(id, path) do
          "<pattern id=\"#{id}\" width=\"6\" height=\"6\" patternUnits=\"userSpaceOnUse\"><path d=\"#{path}\" " \
            "class=\"hatch\"/></pattern>"
        end
        "<defs>#{hatch.call("down", "M0 0L6 6")}#{hatch.call("up", "M0 6L6 0")}</defs>"
      end

      def rules
        lines = (1..[@descent["levels"], 2].max).map { |i| "M0 #{at(HOUSE + (i * @row))}H#{WIDTH.round}" }
        "<path class=\"rules\" d=\"#{lines.join}\"/>"
      end

      def strokes = @descent["strokes"].map { |stroke| stroke["depth"].zero? ? above(stroke) : below(stroke) }.join

      def above(stroke) = rect(stroke, HOUSE - 5, 5, "house")

      def below(stroke)
        depth = stroke["depth"] * @row
        return rect(stroke, HOUSE, depth, "wait") if stroke["kind"] == "wait"
        return rect(stroke, HOUSE, depth, "work") + number(stroke, depth) if stroke["kind"] == "work"

        fill = "d#{[stroke["depth"], DEPTHS.size].min}"
        rect(stroke, HOUSE, depth, fill) + hatched(stroke, depth)
      end

      def hatched(stroke, depth)
        return "" if stroke["minutes"] * @scale < THIN

        rect(stroke, HOUSE + depth - @row, @row, stroke["kind"] == "remove" ? "down" : "up")
      end

      def rect(stroke, top, height, name)
        "<rect class=\"#{name}\" x=\"#{at(stroke["start"] * @scale)}\" y=\"#{at(top)}\" " \
          "width=\"#{at([stroke["minutes"] * @scale, 0.4].max)}\" height=\"#{at(height)}\"/>"
      end

      def number(stroke, depth)
        wide = stroke["minutes"] * @scale
        return "" unless stroke["cylinder"] && wide > 9

        "<text x=\"#{at((stroke["start"] * @scale) + (wide / 2))}\" y=\"#{at(HOUSE + depth - 4)}\">" \
          "#{stroke["cylinder"].to_i}</text>"
      end

      def at(number) = number.round(1)
    end
  end
end
