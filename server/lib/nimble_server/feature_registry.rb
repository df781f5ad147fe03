# frozen_string_literal: true

require "tsort"

module NimbleServer
  # All features, each after those it depends on. Refuses a dependency that is not there, two features that need each
  # other, and an event nobody tells or two tell.
  #
  #   FeatureRegistry.shipped.map(&:name)   #=> [:accounts, :record, …, :bills]
  class FeatureRegistry
    include Enumerable
    include TSort

    FOLDER = "#{__dir__}/features".freeze

    # Those that ship with the server.
    # @return [FeatureRegistry]
    def self.shipped = @shipped ||= new(folders.map { |name| declaration(name) })

    # @return [Array<String>] names of the folders
    def self.folders = Dir.children(FOLDER).sort

    def self.declaration(folder)
      Features.const_get(folder.split("_").map(&:capitalize).join)::Feature
    rescue NameError
      raise Feature::Undeclared, "features/#{folder} has no feature.rb that says what it is."
    end
    private_class_method :declaration

    # @param features [Array<Feature>]
    # @raise [Feature::Undeclared]
    def initialize(features)
      @features = features.to_h { |feature| [feature.name, feature] }
      @ordered = ordered
      refuse_events
    end

    # Each after those it depends on.
    def each(&block) = @ordered.each(&block)

    # @param event [Symbol]
    # @return [Array<Proc>]
    def listeners(event) = filter_map { |feature| feature.listeners[event] }

    private

    def ordered
      strongly_connected_components.map do |knot|
        raise Feature::Undeclared, "These need each other: #{knot.map(&:name).join(", ")}." if knot.size > 1

        knot.first
      end
    end

    def tsort_each_node(&block) = @features.values.each(&block)

    def tsort_each_child(feature, &block)
      feature.dependencies.each do |name|
        block.call(
          @features.fetch(name) { raise Feature::Undeclared, "#{feature.name} depends on #{name}, which is not there." }
        )
      end
    end

    def refuse_events
      told = flat_map(&:events)
      twice = told.tally.select { |_event, count| count > 1 }.keys
      raise Feature::Undeclared, "Told by two features: #{twice.join(", ")}." if twice.any?

      each do |feature|
        unknown = feature.listeners.keys - told
        if unknown.any?
          raise Feature::Undeclared, "#{feature.name} listens to what nobody tells: #{unknown.join(", ")}."
        end
      end
    end
  end
end
