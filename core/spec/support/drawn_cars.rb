# frozen_string_literal: true

# Cars drawn again and again from what the model says of their coils: six of them, 150,000 km old, one failed today.
class DrawnCars
  SHAPE = 2.6
  SCALE = 260_000.0
  VARIANCE = 0.6
  COILS = 6
  AGE = 150_000
  AHEAD = 30_000

  def initialize(seed:)
    @rng = Random.new(seed)
  end

  # @param renewed [Integer] how many coils are new
  # @return [Array(Float, Float)] returns on average, share of cars without one
  def coils(renewed:, runs: 60_000)
    found = Array.new(runs) { failures(renewed) }
    [found.sum / runs.to_f, found.count(&:zero?) / runs.to_f]
  end

  private

  def hazard(km) = (km / SCALE)**SHAPE

  def failures(renewed)
    share = gamma((1 / VARIANCE) + 1) / ((1 / VARIANCE) + (COILS * hazard(AGE)))
    old = fails(share * (hazard(AGE + AHEAD) - hazard(AGE)))
    fresh = fails(hazard(AHEAD))
    (COILS - renewed).times.count { @rng.rand < old } + renewed.times.count { @rng.rand < fresh }
  end

  def fails(hazard) = 1 - Math.exp(-hazard)
  def normal = Math.sqrt(-2 * Math.log(1 - @rng.rand)) * Math.cos(2 * Math::PI * @rng.rand)

  # Gamma of rate 1, for shapes above 1 (Marsaglia and Tsang).
  def gamma(shape)
    d = shape - (1.0 / 3)
    loop do
      x = normal
      v = (1 + (x / Math.sqrt(9 * d)))**3
      next if v <= 0 || Math.log(1 - @rng.rand) > (0.5 * x * x) + d - (d * v) + (d * Math.log(v))

      return d * v
    end
  end
end
