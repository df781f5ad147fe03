# frozen_string_literal: true

module NimbleLedger
  module Card
    # What a work is done with: the tools its profile names, or a socket of the plug's hex, and what its way needs; a
    # need that a named tool already is stands once (model.md section 15).
    module ToolsOfWork
      # @param target [Profile::Target]
      # @param engine [Profile::Engine]
      # @param needs [Array<String>] equipment its way needs, "thin-wall-socket"
      # @return [Array<String>]
      # @example
      #   ToolsOfWork.of(target, engine, ["thin-wall-socket"]) # => ["14 mm thin-wall socket", "250 mm extension"]
      def self.of(target, engine, needs)
        named = target.tools.any? ? target.tools : socket(target, engine)
        (named + needs.reject { |need| named.any? { |tool| (words(need) - words(tool)).empty? } }).uniq
      end

      def self.socket(target, engine)
        hex = target.plug? && engine.plug("hex_mm")
        hex ? ["#{hex} mm plug socket"] : []
      end
      private_class_method :socket

      def self.words(name) = name.downcase.split(/[\s-]+/)
      private_class_method :words
    end
  end
end
