# frozen_string_literal: true

module NimbleLedger
  module Parts
    # Which plugs may go into an engine (model.md section 10, "grade"): the one its profile names, those the price list
    # calls its equivalents, and those it is an equivalent of. What is chosen is priced and fitted in its place; what is
    # in the head until then is as it was.
    #
    #   Parts::PlugChoice.new(catalog).parts("PLG-74865")   #=> ["PLG-74865", "PLG-30592"]
    class PlugChoice
      # @param catalog [Catalog, nil]
      def initialize(catalog)
        @catalog = catalog
        freeze
      end

      # @param named [String, nil] part
      # @return [Array<String>] the named one first
      def parts(named)
        return [] if named.nil?
        return [named] unless @catalog

        own = (@catalog.item(named) || {})["equivalents"].to_a
        base = @catalog.equivalent_to(named)
        [named, *own, *base, *base.flat_map { |part| @catalog.item(part)["equivalents"].to_a }].uniq
      end

      # The engine with another plug to go in.
      # @param engine [Profile::Engine]
      # @param part [String, nil]
      # @return [Profile::Engine] the same where the part is none of its choices
      def engine_with(engine, part)
        named = engine.plug("part")
        part && part != named && parts(named).include?(part) ? engine.with_plug(part) : engine
      end

      # What the price list says of a plug once it is in the head.
      # @return [Hash, nil] "construction", "interval_km"; nil where it does not say both
      def fitted(part)
        about = (@catalog&.item(part) || {})["plug"].to_h.slice("construction", "interval_km")
        about.size == 2 ? about : nil
      end
    end
  end
end
