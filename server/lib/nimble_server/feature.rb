# frozen_string_literal: true

module NimbleServer
  # What a feature says of itself, in its `feature.rb`: whom it reads, what it tells, what it listens to, its routes.
  # FeatureRegistry reads all of them when the server starts and refuses what does not fit; direction_spec compares them
  # with the code.
  #
  #   module NimbleServer::Features::Jobs
  #     # Jobs in the bay.
  #     Feature = NimbleServer::Feature.define(:jobs) do
  #       depends :offers, :record
  #       publishes :handed_over
  #       on(:agreed) { |shop, offer:, scope:, limit_cents:| Opening.new(shop).from_yes(offer, scope, limit_cents) }
  #       routes { [Routes, Papers] }
  #     end
  #   end
  #
  # Another feature, which Jobs knows nothing of, hears what it tells inside the same transaction:
  #
  #   Feature.publish(:handed_over, shop, finished: job)   # within Jobs
  class Feature
    # Something about features that does not fit: said when the server starts, never to a user.
    class Undeclared < StandardError
    end

    # @param name [Symbol] of its folder
    # @return [Feature] frozen
    def self.define(name, &block) = new(name).tap { |feature| feature.instance_exec(&block) if block }.freeze

    attr_reader :name, :dependencies, :events, :listeners

    def initialize(name)
      @name = name
      @dependencies = []
      @events = []
      @listeners = {}
      @routes = -> { [] }
    end

    # @param names [Array<Symbol>] features whose classes this one may use
    def depends(*names) = @dependencies.concat(names)

    # @param names [Array<Symbol>] what it tells those that listen
    def publishes(*names) = @events.concat(names)

    # @param event [Symbol] of any other feature: to listen is not to depend
    # @yield [Shop, **facts] inside the transaction of who tells it; a Refusal raised here refuses the act
    def on(event, &listener) = @listeners[event] = listener

    # @yieldreturn [Array<Module>] Sinatra extensions, loaded with the API
    def routes(&modules) = modules ? @routes = modules : @routes.call

    # Tells every feature that listens, in the order of the registry.
    # @return [Array] what the listeners answer
    # @raise [Undeclared] for what this feature never said it would tell
    def publish(event, shop, **facts)
      raise Undeclared, "#{name} does not publish #{event}." unless events.include?(event)

      FeatureRegistry.shipped.listeners(event).map { |listener| listener.call(shop, **facts) }
    end
  end
end
