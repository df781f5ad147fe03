# frozen_string_literal: true

module NimbleServer
  # Who acts on a shop's rows, recorded on what is made or changed. Not always somebody who is signed in: a customer
  # comes by a link, a technician's device hands in what it kept, the system does work of its own.
  #
  #   Actor.account(id: 3, name: "Ines", role: "advisor").account_id  #=> 3
  #   Actor.system("demo").account_id                                 #=> nil
  #
  # kind: one of KINDS; id: within its kind; name: for people; role: an account's, nil for others.
  Actor =
    Struct.new(:kind, :id, :name, :role, keyword_init: true) do
      # @param row [Hash] of an account: id, name, role
      def self.account(row) = new(kind: "account", id: row[:id], name: row[:name], role: row[:role]).freeze

      # @param offer_id [String] whoever holds the link to it
      def self.customer_link(offer_id) = new(kind: "customer-link", id: offer_id).freeze

      # @param name [String] of the piece of work
      def self.system(name) = new(kind: "system", id: name, name: name).freeze

      # @return [Integer, nil] for columns that refer to accounts
      def account_id = kind == "account" ? id : nil

      # Tells actors of all kinds apart, in locks and counters.
      def key = "#{kind}:#{id}"
    end

  Actor::KINDS = %w[account customer-link device system].freeze
end
