# frozen_string_literal: true

module NimbleServer
  module Features
    module Workshop
      # An engine sketched while the customer is on the phone: five answers, and it stands in the library at once,
      # provisional. What it is made into later is a revision like any other, and quotes on it are offered that.
      class Sketches
        def initialize(shop, library:)
          @shop = shop
          @library = library
        end

        # @param given [Hash] see the contract, NewSketch: the answers, without a code where the shop has none yet
        # @return [Hash] the report of what was done
        def keep(given)
          @shop.transaction do
            code = given["code"].to_s.strip
            code = "SKETCH-#{@shop.next_number("sketches", start: 1)}" if code.empty?
            Engines::Code.new(@shop, code).refuse_taken
            @library.import(profile(given, code), why: "Sketched")
          end
        end

        private

        def profile(given, code)
          name = given["name"].to_s.strip
          answers = given.merge("code" => code, "name" => name.empty? ? code : name, "provisional" => true)
          house = HouseRules::House.new(@shop).settings
          NimbleLedger::Workshop::Sketch.new(answers, kinds: Drafts.new(@shop).kinds, house: house).profile
        end
      end
    end
  end
end
