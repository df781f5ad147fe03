# frozen_string_literal: true

module NimbleLedger
  module House
    # Questions good practitioners answer in different ways (domain.md, "Where good practitioners disagree"). Each
    # answer is a house figure; an engine's profile may say otherwise, and so may one job (Precedence). What is in force
    # stands on the card with one line why.
    #
    #   House::Schools.in_force(House::Settings.defaults).first.says   #=> "as the engine's profile says"
    module Schools
      # value: of the setting; says: as a mechanic would; why: one line.
      Choice = Struct.new(:value, :says, :why)
      # of: what of a job it is about: "plugs", "soak", nil for every job; at_work: whether the card says it.
      School = Struct.new(:setting, :question, :choices, :of, :at_work)
      # setting, question, value, says, why: what is in force.
      InForce = Struct.new(:setting, :question, :value, :says, :why)

      school =
        lambda do |setting, question, choices, of: "plugs", at_work: true|
          School.new(setting, question, choices.map { |row| Choice.new(*row) }, of, at_work)
        end

      ALL = [
        school.call(
          "compound",
          "Thread compound",
          [
            ["profile", "as the engine's profile says", "Where it is silent: none."],
            ["none", "none", "Plated threads need none, and it raises the true torque."],
            ["film", "thin film of nickel compound, first threads bare", "The torque is reduced for it."]
          ]
        ),
        school.call(
          "temperature",
          "Engine temperature",
          [
            ["cold", "all cold", "Warm means burns, soft aluminum and a torque read wrong."],
            ["crack-warm", "cracked loose warm, fitted cold", "A warm head lets go more easily; then it cools."]
          ]
        ),
        school.call(
          "boot_grease",
          "Boot grease",
          [
            ["reused", "thin film in boots used again", "They let go the next time; new ones come greased."],
            ["none", "none", "The maker or the house wants boots dry."]
          ]
        ),
        school.call(
          "boots",
          "Boots",
          [
            ["damaged", "new when damaged, or with a coil", "A sound boot lasts longer than a plug."],
            ["always", "new with every plug", "A boot that was pulled once leaks spark sooner."]
          ]
        ),
        school.call(
          "order_of_work",
          "Order of work",
          [
            ["one-at-a-time", "one bore open at a time", "Nothing falls into a bore that is closed."],
            ["all-out", "all out, laid in order", "They are read side by side."]
          ]
        ),
        school.call(
          "wells",
          "Cleaning the wells",
          [
            ["both", "compressed air, then vacuum", "Air loosens it, the vacuum takes it away."],
            ["air", "compressed air", "Quick, and reaches the corner at the seat."],
            ["vacuum", "vacuum", "Nothing is blown about the bay or into an eye."]
          ]
        ),
        school.call(
          "gap_check",
          "Gap of a new plug",
          [
            ["check", "every one is measured", "Boxes fall; a gap is looked at before it is believed."],
            ["trust", "pre-set gaps are trusted and looked at", "A leaf can do more harm than the box did."]
          ]
        ),
        school.call(
          "fine_wire",
          "Fine wire out of range",
          [
            ["never", "never bent: exchanged", "The electrode snaps, and its coating with it."],
            ["tool", "with a gapping tool, on the strap only", "The tool never touches the fine electrode."]
          ]
        ),
        school.call(
          "power_tools",
          "Power tools on plugs",
          [
            ["never", "never: by hand, out and in", "A hand feels what a tool does not."],
            ["spin-out", "to spin out one that is loose, never in", "It turned freely by hand first."],
            ["after-soak", "steady low impact after a soak, never in", "Small blows let the fluid creep."]
          ]
        ),
        school.call(
          "chirp",
          "A chirp while a plug moves",
          [
            ["good", "a good sign: it moves whole", "The thread sings, nothing gives."],
            ["bad", "a bad sign: it is galling", "Aluminum goes with the thread; tighten, soak, try again."],
            ["by-construction", "good on multi-piece plugs, bad on one-piece ones in aluminum", "What breaks differs."]
          ]
        ),
        school.call(
          "battery",
          "Battery",
          [
            ["asked", "off when a step asks for it", "Nothing forgets its settings without need."],
            ["always", "off on every job", "No harness is live under anybody's hands."]
          ],
          of: nil
        ),
        school.call(
          "inspect_seals",
          "Seals marked inspect",
          [
            ["if-needed", "looked at, new if needed", "The customer pays for what is worn."],
            ["replace", "always new", "Nobody pays twice for the way there."]
          ],
          of: nil
        ),
        school.call(
          "near_ties",
          "A way about as short that spares the car something",
          [
            ["named", "named beside the shortest way", "The advisor decides."],
            ["taken", "the quieter way is taken", "Some minutes more: no relearn, no battery, no new part."]
          ],
          of: nil,
          at_work: false
        ),
        school.call(
          "boosted_interval",
          "Interval of a boosted engine",
          [
            ["stated", "the maker's, where it is stated", "Who built it tried it."],
            ["halved", "half of the maker's", "Heat and pressure wear the electrodes twice as fast."]
          ],
          at_work: false
        )
      ].freeze

      NAMES = ALL.map(&:setting).freeze

      # What one job may answer for itself.
      # @param settings [Hash{String=>Setting}] as declared
      # @return [Shape]
      def self.shape(settings) = Shape.object(optional: NAMES.to_h { |name| [name, settings.fetch(name).shape] })

      # The choices of a setting that has them here.
      # @return [Array<String>]
      def self.values(name) = of(name).choices.map(&:value)

      # @param house [Settings] resolved for the job
      # @return [Array<InForce>] in the order of the trade
      def self.in_force(house, of: %w[plugs], at_work: false)
        ALL
          .select { |one| (one.of.nil? || of.include?(one.of)) && (one.at_work || !at_work) }
          .map { |one| answer(one, house[one.setting]) }
      end

      # What the Quote page shows of them: what is in force for this job, whose word it is, and what else there is.
      # @param shop [Settings] the shop's figures over the shipped ones
      # @param engine [Profile::Engine]
      # @param job [Hash] this job's own answers
      # @return [Array<Hash>] see the contract, Resolved
      def self.page(shop, engine, job)
        without = Precedence.resolve(shop, engine)
        in_force(Precedence.resolve(shop, engine, job)).map do |row|
          name = row.setting
          {
            "setting" => name,
            "question" => row.question,
            "says" => row.says,
            "why" => row.why,
            "value" => row.value.to_s,
            "from" => origin(name, shop, without, job),
            "otherwise" => answer(of(name), without[name]).says,
            "choices" => of(name).choices.map { |choice| { "value" => choice.value, "says" => choice.says } }
          }
        end
      end

      # Whose word holds: "job", "engine", "shop" or "shipped".
      def self.origin(name, shop, without, job)
        return "job" if job.key?(name)
        return "engine" if without[name] != shop[name]

        shop[name] == Settings.defaults[name] ? "shipped" : "shop"
      end
      private_class_method :origin

      def self.of(name) = ALL.find { |one| one.setting == name }
      private_class_method :of

      # A figure that is none of the choices stands as it is: a factor for boosted engines.
      def self.answer(school, value)
        choice = school.choices.find { |one| one.value == value }
        says = choice ? choice.says : "#{value} times what its grade gives"
        InForce.new(school.setting, school.question, value, says, choice ? choice.why : "The shop's own figure.")
      end
      private_class_method :answer
    end
  end
end
