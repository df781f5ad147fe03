# frozen_string_literal: true

# Profiles at the size limits of model.md section 2 (80 steps, 64 targets, 24 of them with 2 to 4 ways, 12 choices of
# 6 members), built so that the locally cheapest way is often globally wrong: cheap private steps against dear steps
# that many targets share.
module HardProfiles
  module_function

  def build(seed)
    rng = Random.new(seed)
    ids = (0...80).map { |i| format("s%02d", i) }
    steps = ids.each_with_index.map { |id, i| step(rng, id, i, ids) }
    targets = (0...64).map { |i| target(rng, i, ids) }
    Profiles.profile(steps: steps, targets: targets)
  end

  # The first 24 are shared and dear, the next 44 cheap; the last 12 hold the choices.
  def step(rng, id, index, ids)
    return choice_holder(rng, id, index, ids) if index >= 68

    likely = index < 24 ? rng.rand(8..30) : rng.rand(2..9)
    after = index < 8 ? [] : ids[0...[index, 24].min].sample(rng.rand(0..2), random: rng)
    Profiles.step(id, [likely * 0.7, likely, likely * 1.6].map { |m| m.round(2) }, after: after)
  end

  def choice_holder(rng, id, index, ids)
    members = ids[8...68].sample(6, random: rng)
    Profiles.step(
      id,
      rng.rand(2..6),
      after: [Profiles.any(*members)] + ids[68...index].sample(rng.rand(0..1), random: rng)
    )
  end

  def target(rng, index, ids)
    ways = index < 24 ? rng.rand(2..4) : 1
    Profiles.target(
      "t#{index}",
      work: index < 16 ? "plug" : "coil",
      cylinder: (index % 16) + 1,
      ways:
        (0...ways).map do |w|
          through = index < 24 ? deep_route(rng, ids) : ids[68..].sample(index < 40 ? 1 : 0, random: rng)
          { "id" => "w#{w}", "through" => through, "factor" => [1.0, 1.2, 1.5].sample(random: rng) }
        end
    )
  end

  def deep_route(rng, ids)
    route = ids[0...24].sample(rng.rand(0..2), random: rng) + ids[24...68].sample(rng.rand(1..2), random: rng)
    rng.rand < 0.6 ? route + ids[68..].sample(1, random: rng) : route
  end
end
