# frozen_string_literal: true

module NimbleServer
  module Features
    module Offers
      # The words of an offer, in the language it was made in: the message with the link, and what is read out on the
      # phone.
      class Wording
        # @param offer [Offer]
        def initialize(shop, offer)
          @shop = shop
          @offer = offer
          @texts = Documents::Texts.new(offer.row[:language])
          @scopes = offer.scopes.map { |scope| ScopeWords.new(shop, offer, scope, @texts) }
        end

        attr_reader :texts, :scopes

        def subject = @texts.say("message.mail_subject", shop: @shop.profile[:name])

        # With the place of the link in it.
        def message
          own = HouseRules::House.new(@shop).settings["#{@offer.row[:channel]}_words"].to_s
          template = own.empty? ? @texts.say("message.#{@offer.row[:channel]}") : own
          Outbox::LinkPlace.compose(template, values)
        end

        # What a customer is told when what they agreed to was taken back, with the place of the link in it.
        # @param kind ["struck", "called-off"]
        # @param reason [String]
        def taken_back(kind, reason) =
          Outbox::LinkPlace.compose(@texts.say("message.#{kind}"), values.merge("reason" => reason))

        # What a customer is told of their time, with the place of the link in it.
        # @param kind ["reminder", "reminder_open", "ready", "late", "late_open"]
        # @param arrives [String, nil] local instant, as ready
        def of_time(kind, arrives:, ready:)
          told = { "bring" => arrives, "ready" => ready }.compact.transform_values { |at| money.moment(at) }
          Outbox::LinkPlace.compose(@texts.say("message.time.#{kind}"), values.merge(told))
        end

        def time_subject = @texts.say("message.time.subject", shop: @shop.profile[:name])

        # What is read out, scope by scope: sentences in order.
        # @return [Array<Array<String>>]
        def spoken = @scopes.map(&:spoken)

        # What the car is called to its owner: what it is and its plate.
        def car = "#{vehicle[:description]} (#{vehicle[:plate]})"

        def vehicle = @vehicle ||= Vehicles::Garage.new(@shop).find(@offer.quote[:vehicle_id])

        # Whether the engine is only sketched.
        def provisional? = @offer.scopes.any? { |scope| scope.request.dig("engine", "provisional") }

        def until_day = money.date(@offer.row[:expires_at])

        def money
          @money ||=
            Documents::ShopText.new(
              locale: @shop.profile[:locale],
              currency: @offer.revision[:currency],
              exponent: @offer.revision[:currency_exponent],
              distance_unit: @shop.profile[:distance_unit],
              time_zone: @shop.profile[:time_zone]
            )
        end

        private

        def values
          totals = @offer.scopes.map { |scope| money.full(scope.total_cents) }
          {
            "name" => @offer.row[:recipient],
            "shop" => @shop.profile[:name],
            "car" => car,
            "total" => either(totals),
            "until" => until_day
          }
        end

        def either(totals)
          return totals.first if totals.size == 1

          @texts.say("choice", first: totals[0..-2].join(", "), second: totals.last)
        end
      end
    end
  end
end
