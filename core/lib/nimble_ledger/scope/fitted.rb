# frozen_string_literal: true

module NimbleLedger
  module Scope
    # When parts were fitted, as a request tells it: by kind, or by the target that renews one; a name that is both
    # means the target. Untold, a part is as old as the car.
    class Fitted
      # @param hash [Hash{String=>Numeric}] odometer at fitting, by kind or target id
      # @param car [Car] with a history
      # @raise [InvalidInput] for a name that is neither, or a reading above the odometer
      def initialize(hash, car, path: "/fitted_km")
        @odometer = car.history.odometer_km
        @targets, @kinds = hash.partition { |name, _km| car.engine.target(name) }.map(&:to_h)
        @kinds.each_key do |name|
          refuse(path, name, "is neither a kind of part nor a target") unless Part::KINDS.include?(name)
        end
        @targets.each_key do |id|
          refuse(path, id, "renews no part") unless Part::KINDS.include?(car.engine.target(id).work)
        end
        hash.each { |name, km| refuse(path, name, "is above the odometer (#{@odometer} km)") if km > @odometer }
        freeze
      end

      # @param targets [Array<Profile::Target>] that renew the part
      # @return [Numeric, nil] km it has run, where anything is told of it
      def told(kind, targets)
        target = targets.find { |one| @targets.key?(one.id) }
        km = target ? @targets[target.id] : @kinds[kind]
        km && (@odometer - km)
      end

      # @return [Numeric] km it has run
      def age(kind, targets) = told(kind, targets) || @odometer

      private

      def refuse(path, name, message) = raise(InvalidInput.at("#{path}/#{Shape.key(name)}", message))
    end
  end
end
