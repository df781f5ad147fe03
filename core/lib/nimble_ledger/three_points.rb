# frozen_string_literal: true

module NimbleLedger
  # A time in minutes as three points, low <= likely <= high (model.md section 3).
  class ThreePoints
    attr_reader :low, :likely, :high

    # @return [Float] minutes
    attr_reader :mean, :sd

    # @raise [ArgumentError] when the points are not finite, negative or out of order
    def initialize(low, likely, high)
      unless low.is_a?(Numeric) && likely.is_a?(Numeric) && high.is_a?(Numeric) && low >= 0 && low <= likely &&
               likely <= high && high.finite?
        raise ArgumentError, "three points must be finite and 0 <= low <= likely <= high, got #{[low, likely, high]}"
      end

      @low = low
      @likely = likely
      @high = high
      @mean = (low + (4 * likely) + high) / 6.0
      @sd = (high - low) / 6.0
      freeze
    end

    def self.from(list) = new(*list)

    # A single figure of the house, spread by low = 0.7x and high = 1.5x (model.md section 4).
    def self.around(minutes) = new(minutes * 0.7, minutes, minutes * 1.5)

    # Minutes known exactly: no spread.
    def self.exactly(minutes) = new(minutes, minutes, minutes)

    def variance = sd**2

    # The mean as an exact fraction of the decimals as they were written, for comparing plans without rounding.
    def exact_mean
      (ThreePoints.exact(low) + (4 * ThreePoints.exact(likely)) + ThreePoints.exact(high)) / 6
    end

    def *(other) = other == 1 ? self : ThreePoints.new(low * other, likely * other, high * other)

    def to_a = [low, likely, high]

    def ==(other) = other.is_a?(ThreePoints) && to_a == other.to_a
    def eql?(other) = other.is_a?(ThreePoints) && to_a.eql?(other.to_a)
    def hash = to_a.hash

    DECIMALS = {} # rubocop:disable Style/MutableConstant -- the few decimals a shop writes, over and over
    private_constant :DECIMALS

    # @return [Rational] the decimal a number was written as ("0.1" is one tenth, not its binary neighbor)
    def self.exact(number)
      return number.to_r unless number.is_a?(Float)

      DECIMALS.clear if DECIMALS.size > 1000
      DECIMALS[number] ||= number.to_s.to_r
    end
  end
end
