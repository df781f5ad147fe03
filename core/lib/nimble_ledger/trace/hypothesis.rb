# frozen_string_literal: true

module NimbleLedger
  module Trace
    # One fault there may be (model.md section 9). cause: coil, plug, wire, wiring, injector, compression, elsewhere,
    # cap-and-rotor; cylinders: those it affects at first; part: what travels when parts are swapped (a kind and what it
    # is the part of), nil for what stays; boot: whether it is a boot's, read by its own row where a test has one.
    class Hypothesis
      # kind: coil, plug, boot, wire; of: a coil's id, or a cylinder.
      Part = Struct.new(:kind, :of)

      attr_reader :cause, :cylinders, :part, :prior

      # @param prior [Float] chance before anything is known
      # @param set [Boolean] whether it is all parts of the kind together, weak and equally old: no swap finds it
      def initialize(cause, cylinders, prior, part: nil, set: false)
        @set = set
        @cause = cause
        @cylinders = cylinders
        @prior = prior
        @part = part
        freeze
      end

      def set? = @set
      def boot? = part&.kind == "boot"
      def elsewhere? = cause == "elsewhere"

      # The cause whose rows it is read by.
      def row = cause == "cap-and-rotor" ? "wire" : cause

      # The same with its prior times something.
      def times(factor) = Hypothesis.new(cause, cylinders, prior * factor, part: part, set: set?)
    end
  end
end
