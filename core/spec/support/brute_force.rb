# frozen_string_literal: true

# Solves a planning problem by trying every way of every target and every member of every choice: the definition of
# model.md section 2, written down as plainly as possible and sharing nothing with the planner.
class BruteForce
  Plan = Struct.new(:cost, :steps, :ways, :members)

  # @param rust [Array(Float, Float)] multipliers on removing and refitting steps that rust
  # @param battery [Float] minutes of battery off and on, once as soon as a step asks for it; 0 under rules 1
  def initialize(hash, equipment: [], pins: nil, rust: [1.0, 1.0], battery: 31 / 6.0)
    @battery = battery
    @steps = hash["steps"].to_h { |s| [s["id"], s] }
    @place = hash["steps"].each_with_index.to_h { |s, i| [s["id"], i] }
    @targets = hash["targets"].to_h { |t| [t["id"], t] }
    @equipment = equipment
    @pins = { "ways" => {}, "choices" => {} }.merge(pins || {})
    @rust = rust
  end

  # @return [Plan, nil] nil when nothing reaches the targets
  def best(ids)
    targets = @targets.values.select { |t| ids.include?(t["id"]) }
    plans = []
    combinations(targets.map { |t| allowed_ways(t) }) { |ways| complete(targets, ways) { |plan| plans << plan } }
    return nil if plans.empty?

    least = plans.map(&:cost).min
    plans
      .select { |plan| plan.cost <= least + 1e-9 }
      .min_by { |plan| [plan.steps.size, plan.steps.map { |s| @place[s] }.sort, plan.ways, plan.members] }
  end

  private

  def allowed_ways(target)
    target["ways"].each_index.select do |i|
      usable?(target["ways"][i]) && [nil, target["ways"][i]["id"]].include?(@pins["ways"][target["id"]])
    end
  end

  def usable?(thing)
    ((thing["needs"] || []) - @equipment).empty? &&
      (thing["closing"] || []).all? { |task| task["without"] || ((task["needs"] || []) - @equipment).empty? }
  end

  def combinations(lists, chosen = [], &block)
    return block.call(chosen) if chosen.size == lists.size

    lists[chosen.size].each { |option| combinations(lists, chosen + [option], &block) }
  end

  # Grows the set of steps; at each choice reached, tries every member.
  def complete(targets, ways, &block)
    holders = targets.each_with_index.map { |t, i| [t["id"], t["ways"][ways[i]]["through"] || []] }
    grow(
      holders.flat_map { |id, list| list.each_with_index.map { |entry, i| ["target", id, i, entry] } },
      {},
      {}
    ) { |set, members| yield Plan.new(cost(set.keys, targets, ways), set.keys, ways, ordered(members)) }
  end

  def grow(open, set, members, &block)
    return block.call(set, members) if open.empty?

    (kind, id, place, entry), *rest = open
    return reach(entry, rest, set, members, &block) if entry.is_a?(String)

    pinned = Array(@pins["choices"][id]) & entry["any"]
    candidates = pinned.empty? ? entry["any"] : pinned
    candidates.each { |m| reach(m, rest, set, members.merge([kind, id, place] => entry["any"].index(m)), &block) }
  end

  def reach(id, rest, set, members, &block)
    return grow(rest, set, members, &block) if set[id]

    step = @steps[id]
    return unless usable?(step)

    more = (step["after"] || []).each_with_index.map { |entry, i| ["step", id, i, entry] }
    grow(rest + more, set.merge(id => true), members, &block)
  end

  # Members by holders in file order: steps first, then targets.
  def ordered(members)
    members
      .sort_by do |(kind, id, place), _m|
        [kind == "step" ? 0 : 1, kind == "step" ? @place[id] : @targets.keys.index(id), place]
      end
      .map(&:last)
  end

  def cost(steps, targets, ways)
    steps.sum(0.0) { |id| step_cost(@steps[id]) } + (steps.any? { |id| @steps[id]["battery"] } ? @battery : 0.0) +
      targets.each_with_index.sum(0.0) { |t, i| mean(t["minutes"]) * (t["ways"][ways[i]]["factor"] || 1.0) }
  end

  def step_cost(step)
    off, on = step["rust_prone"] ? @rust : [1.0, 1.0]
    labor = (mean(step["remove"]) * off) + (mean(step["refit"]) * on)
    (labor + (step["closing"] || []).sum(0.0) { |task| closing(task) }) * (step["people"] || 1)
  end

  def closing(task) =
    mean(((task["needs"] || []) - @equipment).empty? || task["without"].nil? ? task["minutes"] : task["without"])

  def mean(points) = (points[0] + (4 * points[1]) + points[2]) / 6.0
end
