# frozen_string_literal: true

module NimbleServer
  module Documents
    # What a way on after trouble is called, to the customer and in the shop.
    module WayOnWords
      # Nothing is taken out where nothing is left in the head.
      # @param texts [Texts]
      # @param way [String] one of NimbleLedger::Card::WaysOn::NAMES
      # @return [String]
      def self.title(texts, way, take_out:) = texts.say("page.way.#{way}#{"_out" if take_out && way != "stop"}")
    end
  end
end
