# frozen_string_literal: true

# Profiles within the limits of the format that nobody can prove the shortest plan of: 24 targets, each with 4 ways
# through
# 5 to 7 of 68 steps, and 12 choices of 6.
module TangledProfiles
  module_function

  def build(seed)
    rng = Random.new(seed)
    ids = (0...68).map { |i| "s#{i}" }
    steps =
      ids.map do |id|
        Profiles.step(id, rng.rand(1.0..30.0).round(2).then { |m| [(m * 0.7).round(2), m, (m * 1.5).round(2)] })
      end
    holders =
      (0...12).map { |i| Profiles.step("h#{i}", rng.rand(1..5), after: [Profiles.any(*ids.sample(6, random: rng))]) }
    Profiles.profile(
      steps: steps + holders,
      targets: (0...64).map { |i| target(rng, i, ids) },
      plug: {
        "part" => "PLG-1",
        "construction" => "multi-piece"
      }
    )
  end

  def target(rng, index, ids)
    ways =
      (0...(index < 24 ? 4 : 1)).map do |w|
        through = index < 24 ? ids.sample(rng.rand(5..7), random: rng) + ["h#{rng.rand(12)}"] : ["h#{index % 12}"]
        { "id" => "w#{w}", "through" => through, "factor" => [1.0, 1.2, 1.5].sample(random: rng) }
      end
    Profiles.target("t#{index}", work: index < 16 ? "plug" : "coil", cylinder: (index % 16) + 1, ways: ways)
  end
end
