# frozen_string_literal: true

module NimbleServer
  module Documents
    # The bay card for shops that work from paper: every piece in its order with tool, bolts, torque and caution, boxes
    # to tick, a row to write down each plug.
    class BayCardPDF < PaperPage
      BOX = 9

      # @param shop [Hash] the shop's row
      # @param job [Hash] row, with plate and description of its car
      # @param sheet [Hash] what the card shows
      # @param head [String] the end of the shop's record, in short
      def initialize(shop, job, sheet, car:, head:)
        @shop = shop
        @job = job
        @sheet = sheet
        @car = car
        @head = head
        @text = ShopText.new(**shop.slice(:locale, :distance_unit, :time_zone))
        super(paper: shop[:paper], title: "Bay card, job #{job[:number]}")
      end

      # @return [String] the PDF
      def render
        heading
        lay_out
        @sheet["pieces"].each { |piece| piece(piece) }
        plugs if @sheet["plugs"].any?
        in_force
        foot(
          "Times and torques of the demo are examples. The maker's service information and local rules come first.",
          "#{@shop[:name]}   job #{@job[:number]}   record #{@head}   page <page> of <total>"
        )
        @pdf.render
      end

      private

      def heading
        @pdf.text @shop[:name], size: 10, color: SECOND
        row("#{@car[:plate]}   #{@job[:title]}", "job #{@job[:number]}", size: 16, style: :bold)
        @pdf.move_down 2
        row(@sheet["engine"], @job[:bay].to_s.empty? ? "" : "bay #{@job[:bay]}", size: 10)
        @pdf.move_down 2
        @pdf.text schools, size: 9, color: SECOND
        rule(1)
      end

      # How the house does it, each with one line why; cards from before have none.
      def in_force
        rows = @sheet["in_force"].to_a
        return if rows.empty?

        @pdf.start_new_page if @pdf.cursor < 40 + (rows.size * 11)
        @pdf.move_down 12
        @pdf.text "How this house does it", size: 12, style: :bold
        rows.each do |row|
          @pdf.text "#{row["question"]}: #{row["says"]}. #{row["why"]}", size: 8.5, color: SECOND, leading: 0.5
        end
      end

      def schools
        said = @sheet["schools"]
        compound = said["compound"] == "film" ? "thin film of compound" : "no thread compound"
        order = said["order"] == "all-out" ? "all out, laid in order" : "one bore open at a time"
        soak = said["soak"] == "none" ? "no soak" : "soak: #{said["soak"].tr("-", " ")}"
        ["engine cold", compound, order, said["tighten"] == "angle" ? "by angle" : "torque wrench", soak].join(" · ")
      end

      # Tools and parts of the whole job, before it starts.
      def lay_out
        rows = lay_out_rows.reject { |_, words| words.empty? }
        return if rows.empty?

        @pdf.move_down 6
        rows.each { |name, words| @pdf.text "<b>#{name}</b>  #{words}", size: 9, inline_format: true, leading: 1 }
        @pdf.move_down 2
        rule(0.5)
      end

      def lay_out_rows
        tools, parts = @sheet.fetch("lay_out", {}).values_at("tools", "parts").map(&:to_a)
        perhaps, sure = parts.partition { |part| part["perhaps"] }
        wires = @sheet["wires"].to_a.map { |wire| "#{wire["cylinder"]} from #{wire["from"]}" }
        [
          ["tools", tools.map { |tool| tool["lacking"] ? "#{tool["what"]} (not in this shop)" : tool["what"] }],
          ["parts", sure.map { |part| counted(part) }],
          ["if needed", perhaps.map { |part| counted(part) }],
          ["agreed beside it", by_hand],
          ["wires", wires]
        ].map { |name, words| [name, escaped(words.join(", "))] }
      end

      # Hours of work, or pieces of anything else.
      def by_hand
        @sheet["by_hand"].to_a.map do |line|
          many = line["quantity"] || 1
          next "#{line["label"]}, #{@text.number(many, many == many.to_i ? 0 : 2)} h" if line["class"] == "labor"

          many == 1 ? line["label"] : counted(line)
        end
      end

      def counted(part) = "#{part["quantity"]} × #{part["label"].to_s.empty? ? part["part"] : part["label"]}"
      def escaped(text) = text.gsub("&", "&amp;").gsub("<", "&lt;").gsub(">", "&gt;")

      def piece(piece)
        @pdf.start_new_page if @pdf.cursor < 46
        @pdf.move_down 5
        top = @pdf.cursor
        @pdf.stroke_color INK
        @pdf.line_width = 0.7
        @pdf.stroke_rectangle [0, top], BOX, BOX
        @pdf.indent(BOX + 8) do
          row(
            title(piece),
            piece["minutes"].zero? ? "" : "#{piece["minutes"].round} min",
            size: 10.5,
            style: piece["kind"] == "work" ? :bold : :normal
          )
          details(piece).each { |line| @pdf.text line, size: 8.5, color: SECOND, leading: 0.5 }
        end
      end

      WORDS = { "remove" => "off", "refit" => "on" }.freeze

      # Cards from before titles stood on them have none.
      def title(piece) = piece["title"] || [piece["label"], WORDS[piece["kind"]]].compact.join(", ")

      def details(piece)
        bolts = (piece["fasteners"] || []).map { |one| bolt(one, piece["kind"]) }
        plug = piece["plug"] && goes_in?(piece) ? plug_words(piece["plug"]) : []
        tools = (piece["with"] || []).any? ? ["with #{piece["with"].map { |tool| tool.tr("-", " ") }.join(", ")}"] : []
        facts = [*tools, *bolts, *loose(piece), *plug].join(" · ")
        [facts, *(piece["does"] || []), *acts(piece), *(piece["cautions"] || [])].reject(&:empty?)
      end

      # What is ticked beside the bolts.
      def loose(piece)
        ticks = (piece["ticks"] || []).reject { |tick| tick["item"].start_with?("fastener") }
        ticks.map { |tick| tick["item"].include?(":") ? "#{tick["count"]} × #{tick["label"]}" : tick["label"] }
      end

      # What is done to its plugs, a box for each act.
      def acts(piece)
        (piece["acts"] || []).map { |act| "[  ] #{ACTS.fetch(act["act"])}. #{act["does"].join(" ")}".strip }
      end

      ACTS = {
        "clean" => "Well clean",
        "out" => "Out",
        "read" => "Read",
        "dry" => "Well dry",
        "in" => "In",
        "tighten" => "Tight"
      }.freeze

      def goes_in?(piece) = piece["acts"].nil? || piece["acts"].any? { |act| act["act"] == "tighten" }

      def bolt(one, kind)
        tight = kind == "refit" && one["torque_nm"] ? " #{torque(one["torque_nm"])}" : ""
        "#{one["count"]} × #{one["what"]}#{" #{one["size"]}" if one["size"]}#{tight}"
      end

      def plug_words(plug)
        gap =
          plug["gap_mm"] &&
            "gap #{@text.number(plug["gap_mm"]["low"], 2)} to #{@text.number(plug["gap_mm"]["high"], 2)} mm" \
              "#{", this car's own" if plug["own_gap"]}"
        tight = plug["by"] == "angle" ? angle(plug["turns"]) : plug["torque_nm"] && torque(plug["torque_nm"])
        [gap, tight, plug["torque_note"]].compact
      end

      # "by angle: 1/2 to 2/3 turn after finger-tight"; cards whose profile knows no seat say only how.
      def angle(turns)
        return "by angle" unless turns

        said = turns.uniq.map { |turn| turn.rationalize(Rational(1, 100)).to_s }
        "by angle: #{said.join(" to ")} turn after finger-tight"
      end

      # Below this a wrench is marked in pound-inches, as on the screen.
      SMALL_NM = 15
      # Below this a pound-foot is too coarse to be said whole.
      FINE_NM = 20

      def torque(nm)
        lb_ft = NimbleLedger::Bench::Units.torque(nm)["lb_ft"]
        "#{@text.number(nm, 1)} N·m (#{pounds(nm, lb_ft)})"
      end

      def pounds(nm, lb_ft)
        return "#{@text.number(lb_ft * 12, 0)} lb-in" if nm < SMALL_NM

        "#{@text.number(lb_ft, nm < FINE_NM ? 1 : 0)} lb-ft"
      end

      # A line for each plug, to be filled in by hand.
      def plugs
        @pdf.start_new_page if @pdf.cursor < 60 + (@sheet["plugs"].size * 18)
        @pdf.move_down 12
        @pdf.text "Plugs, as they came out", size: 12, style: :bold
        @sheet["plugs"].each do |plug|
          @pdf.move_down 6
          row(
            plug["label"],
            "free  ·  stubborn  ·  thread  ·  broke      looks ____________   gap ______   new ______",
            size: 9.5
          )
          rule(0.3, gap: 2)
        end
      end
    end
  end
end
