# frozen_string_literal: true

module NimbleLedger
  module House
    # Whose word holds (model.md section 6, "Precedence of a rule"): shipped, then the shop, then the engine's own
    # overrides, then this job. Boot grease in the profile counts as well: `film` beats the shop but not the job,
    # `forbidden` beats every word.
    module Precedence
      module_function

      # @param shop [Settings] the shop's figures over the shipped ones
      # @param engine [Profile::Engine]
      # @param job [Hash, nil] this job's own figures, by name
      # @return [Settings] what is in force for the job
      # @raise [InvalidInput] with the path of what does not fit
      def resolve(shop, engine, job = nil)
        house = shop.with(engine.house_overrides, path: "/engine/house_overrides")
        house = house.with({ "boot_grease" => "reused" }) if engine.boot_grease == "film"
        house = house.with(job)
        house = house.with({ "boot_grease" => "none" }) if engine.boot_grease == "forbidden"
        galls?(house["chirp"], engine) ? chirping_badly(house) : house
      end

      # Whether a chirp is a bad sign on this engine, by the school in force.
      def galls?(school, engine)
        return school == "bad" unless school == "by-construction"

        engine.plug("construction").to_s.start_with?("one-piece") && engine.head == "aluminum"
      end

      def chirping_badly(house)
        house.with({ "sign_factor" => house["sign_factor"].merge("chirps" => house["chirp_bad_factor"]) })
      end
    end
  end
end
