# frozen_string_literal: true

module NimbleLedger
  module Risk
    # When the plugs were last changed, as the risk needs it (model.md section 5).
    class History
      SHAPE = Shape.object(required: {
                             "odometer_km" => Shape.number(max: 10_000_000), "plugs_changed_km" => Shape.number(max: 10_000_000),
                             "plugs_changed_years" => Shape.number(max: 200)
                           }, optional: { "compound_used" => Shape.boolean })

      attr_reader :distance_km, :years

      # @raise [InvalidInput] when the last change stands above the odometer
      def initialize(hash, path: "/history")
        SHAPE.check!(hash, what: "history", path: path)
        @distance_km = hash["odometer_km"] - hash["plugs_changed_km"]
        @years = hash["plugs_changed_years"]
        @compound_used = hash["compound_used"] || false
        freeze
        return unless @distance_km.negative?

        message = "is above the odometer (#{hash["odometer_km"]} km): the plugs cannot have been changed later than now"
        raise InvalidInput.new("The history cannot be right: #{path}/plugs_changed_km #{message}.",
                               details: [{ "path" => "#{path}/plugs_changed_km", "message" => message }])
      end

      def compound_used? = @compound_used
    end
  end
end
