# frozen_string_literal: true

module NimbleLedger
  module Workshop
    # What is done to a profile on the reach drawing, act by act (model.md section 1). Prerequisites that follow from
    # the drawing are drawn anew; those written by hand stay, but for what the act itself takes away or adds. What an
    # act does not touch stays as it is, to the byte.
    #
    #   Acts.new(profile, kinds: kinds).apply("do" => "lay", "step" => "cowl", "cylinders" => [3, 5])
    class Acts
      id = Shape.string(max: 80)
      cylinders = Shape.list(Shape.integer(min: 1, max: 99), max: 32, unique: true)
      name = Shape.string(max: 400)
      ACTS = {
        "add" => {
          "label" => name,
          "cylinders" => cylinders
        },
        "lay" => {
          "step" => id,
          "cylinders" => cylinders
        },
        "press" => {
          "step" => id,
          "cylinder" => Shape.integer(min: 1, max: 99)
        },
        "depth" => {
          "step" => id,
          "to" => Shape.integer(max: Profile::MAX_STEPS)
        },
        "drop" => {
          "step" => id
        },
        "fork" => {
          "step" => id,
          "with" => id
        },
        "join" => {
          "step" => id
        },
        "about" => {
          "at" => Shape.string(max: 200, pattern: %r{\A/(steps|targets)/\d{1,2}/(remove|refit|minutes)\z}),
          "minutes" => Shape.number(max: 100_000)
        }
      }.freeze
      SHAPE = Shape.object(required: { "do" => Shape.one_of(*ACTS.keys) }, optional: { **ACTS.values.reduce(:merge) })

      # A list of entries in the profile: where, whose cylinders, and the step that holds it (nil for a way).
      Place =
        Struct.new(:owner, :key, :cylinders, :step, :way) do
          def list = owner[key] || []

          def write(entries)
            return if entries == list

            entries.empty? && step ? owner.delete(key) : owner[key] = entries
          end
        end

      # @param profile [Hash] fits Profile::SHAPE
      # @param kinds [UsualTimes] what layers of a kind take
      def initialize(profile, kinds:)
        @profile = JSON.parse(JSON.generate(profile))
        @kinds = kinds
      end

      # @param act [Hash] fits SHAPE
      # @return [Hash] the profile after it
      # @raise [InvalidInput] with the path of what the act lacks or names in vain
      def apply(act)
        SHAPE.check!(act, what: "act", code: "invalid_act", path: "/act")
        ACTS.fetch(act["do"]).each_key { |key| refuse(key, "is missing") unless act.key?(key) }
        %w[step with].each { |key| refuse(key, "names step #{act[key]}, which does not exist") if lost?(act[key]) }
        act["do"] == "about" ? about(act) : drawn { |layers| send(act["do"], act, layers) }
        @profile
      end

      private

      def refuse(key, message) = raise(InvalidInput.at("/act/#{key}", message, what: "act", code: "invalid_act"))
      def lost?(id) = id && steps.none? { |step| step["id"] == id }
      def steps = @profile["steps"]
      def step(id) = steps.find { |one| one["id"] == id }

      # Three points from one figure, with the spread of its kind.
      def about(act)
        _root, list, index, key = act["at"].split("/")
        holder = @profile.dig(list, index.to_i)
        known = list == "steps" ? %w[remove refit] : %w[minutes]
        refuse("at", "there is nothing at #{act["at"]}") unless holder && known.include?(key)
        holder[key] = @kinds.points(UsualTimes.of(holder), key, act["minutes"])
        Profile::Origins.note(@profile, list, holder["id"], key, "kind")
      end

      # What the drawing says before and after an act; every list that followed it before follows it after.
      def drawn
        before = Layers.new(@profile)
        pressed = before.ids.to_h { |id| [id, before.over(id)] }
        following = places.select { |place| follows?(place, before) }.map { |place| [place.owner, place.list] }
        @changed = {}
        @forks = before.forks.map(&:dup)
        yield before
        pressed.merge!(@changed)
        steps.each { |one| one["over"] = pressed.fetch(one["id"]) }
        redraw(before, following)
        seen = Layers.new(@profile)
        steps.each { |one| one.delete("over") if seen.reached_from(one["id"]) == one["over"] }
      end

      # From the top down, so that what follows through a step is known before it is asked for.
      def redraw(before, following)
        lists = {}.compare_by_identity
        following.each { |owner, list| lists[owner] = list }
        lists[@fresh] = [] if @fresh
        places.each do |place|
          now = Layers.new(@profile, forks: @forks)
          if lists.key?(place.owner)
            place.write(drawn_list(lists.fetch(place.owner), wanted(place, now), now))
          else
            by_hand(place, before, now)
          end
        end
      end

      # As it was written, where that still says the same.
      def drawn_list(before, anew, layers)
        known =
          before.flat_map { |entry| entry.is_a?(Hash) ? entry["any"] : [entry] }.all? { |id| layers.ids.include?(id) }
        known && layers.meaning(before) == layers.meaning(anew) ? before : anew
      end

      def follows?(place, layers) = layers.meaning(place.list) == layers.meaning(wanted(place, layers))

      def wanted(place, layers)
        place.step ? layers.after(place.step) : layers.through(place.cylinders)
      end

      # A list written by hand: layers that came over its cylinders are added, those that left them are taken out.
      def by_hand(place, before, now)
        mine = place.step ? now.over(place.step) : place.cylinders
        above = place.step ? now.ids.take_while { |id| id != place.step } : now.ids
        @changed.each do |id, cylinders|
          had = before.ids.include?(id) ? before.over(id) : []
          gone = (had - cylinders).intersect?(mine) && !cylinders.intersect?(mine)
          place.write(place.list - [id]) if gone
          come = (cylinders - had).intersect?(mine) && above.include?(id) && place.way != :other
          place.write(place.list + [id]) if come && !now.meaning(place.list).include?(id)
        end
      end

      def places
        steps.map { |one| Place.new(one, "after", nil, one["id"], nil) } +
          @profile["targets"].flat_map do |target|
            target["ways"].each_with_index.map do |way, i|
              Place.new(way, "through", Layers.cylinders(target), nil, i.zero? ? :first : :other)
            end
          end
      end

      def add(act, _layers)
        refuse("label", "would be step #{Profile::MAX_STEPS + 1}: join some") if steps.size >= Profile::MAX_STEPS
        kind = UsualTimes.of({ "label" => act["label"] })
        @fresh = {
          "id" => fresh_id(act["label"]),
          "label" => act["label"],
          "remove" => @kinds.typical(kind, "remove"),
          "refit" => @kinds.typical(kind, "refit")
        }
        steps.insert(place_for(act["cylinders"]), @fresh)
        %w[remove refit].each { |key| Profile::Origins.note(@profile, "steps", @fresh["id"], key, "kind") }
        @changed[@fresh["id"]] = act["cylinders"].sort
      end

      # Above what comes off with each cylinder alone (coils, wires), else at the bottom.
      def place_for(cylinders)
        single = steps.reverse.take_while { |one| one["cylinder"] }.size
        cylinders.size == 1 ? steps.size : steps.size - single
      end

      def fresh_id(label)
        base = label.downcase.gsub(/[^a-z0-9]+/, "-").gsub(/\A-+|-+\z/, "")[0, 60]
        base = "layer" if base.empty?
        taken = steps.map { |one| one["id"] }
        [base, *(2..99).map { |n| "#{base}-#{n}" }].find { |id| !taken.include?(id) }
      end

      def lay(act, layers)
        alike = (layers.fork_of(act["step"]) || []).select { |id| layers.over(id) == layers.over(act["step"]) }
        [act["step"], *alike].each { |id| @changed[id] = act["cylinders"].sort }
      end

      # Over a cylinder it did not lie over, or no longer over one it did.
      def press(act, layers)
        over = layers.over(act["step"])
        number = [act["cylinder"]]
        lay(act.merge("cylinders" => over.intersect?(number) ? over - number : over + number), layers)
      end

      def depth(act, _layers)
        one = step(act["step"])
        steps.delete(one)
        steps.insert([act["to"], steps.size].min, one)
      end

      # What named the step names what it came after.
      def drop(act, _layers)
        id = act["step"]
        leave_forks(id)
        before = step(id)["after"] || []
        steps.reject! { |one| one["id"] == id }
        places.each { |place| place.write(replaced(place.list, id, before)) }
        Profile::Origins.forget(@profile, "steps", id)
      end

      def leave_forks(id)
        @forks.map! { |members| members - [id] }
        @forks.select! { |members| members.size > 1 }
      end

      def replaced(list, id, with)
        list
          .flat_map { |entry| any(entry).include?(id) ? left(entry, id) : [entry] }
          .flat_map { |e| e == id ? with : [e] }
          .uniq
      end

      # A choice without one of its members: of two, the other alone.
      def left(entry, id)
        members = entry["any"] - [id]
        members.size > 1 ? [{ "any" => members }] : members
      end

      # Two layers of which one is enough, side by side from now on.
      def fork(act, layers)
        one, other = act.values_at("step", "with")
        refuse("with", "is the same layer") if one == other
        members = [*(layers.fork_of(one) || [one]), *(layers.fork_of(other) || [other])].uniq
        if members.size > Profile::MAX_MEMBERS
          refuse("with", "would be alternative #{members.size} of at most #{Profile::MAX_MEMBERS}")
        end
        @forks = @forks.reject { |known| known.intersect?(members) } << members.sort
        over = layers.over(one).empty? ? layers.over(other) : layers.over(one)
        members.each { |id| @changed[id] = over }
        places.each { |place| place.write(forked(place.list, members)) }
      end

      def forked(list, members)
        return list unless list.any? { |entry| members.include?(entry) || members.intersect?(Array(any(entry))) }

        list.map { |entry| members.include?(entry) || members.intersect?(any(entry)) ? choice(members) : entry }.uniq
      end

      def any(entry) = entry.is_a?(Hash) ? entry["any"] : []
      def choice(members) = { "any" => steps.map { |one| one["id"] }.select { |id| members.include?(id) } }

      # No longer an alternative: it comes off like any other layer.
      def join(act, layers)
        id = act["step"]
        layers.fork_of(id) or refuse("step", "has no alternative")
        leave_forks(id)
        places.each { |place| place.write(place.list.flat_map { |entry| apart(entry, id) }.uniq) }
        @changed[id] = layers.over(id)
      end

      def apart(entry, id) = any(entry).include?(id) ? [*left(entry, id), id] : [entry]
    end
  end
end
