# frozen_string_literal: true

module NimbleServer
  module Features
    module Vehicles
      # A plate is the same however its blanks and dashes are written: one car, not two.
      module Plate
        # @param plate [String, nil] nil where none is given
        # @param except [String, nil] id of the vehicle that may have it
        # @raise [Refusal] 409 when another car of the shop has it
        def self.refuse_known(shop, plate, except: nil)
          return if plate.nil?

          rows = shop[:vehicles].exclude(id: except)
          there = rows.where(plain(Sequel[:vehicles][:plate]) => plate.upcase.gsub(/[^[:alnum:]]/, "")).get(:plate)
          raise known(there) if there
        end

        # @param plate [String] as it stands here
        # @return [Refusal]
        def self.known(plate) =
          Refusal.new(
            409,
            "plate_known",
            "A vehicle with the plate #{plate} is already here.",
            details: [{ "path" => "/plate", "message" => "is already known" }]
          )

        def self.plain(column) = Sequel.function(:regexp_replace, column, "[^[:alnum:]]", "", "g")
        private_class_method :plain
      end
    end
  end
end
