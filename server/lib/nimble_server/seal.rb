# frozen_string_literal: true

require "digest"

module NimbleServer
  # The canonical bytes of a saved revision, kept beside it with their digest (model.md section 14). What the rows say
  # can be held against them at any time.
  #
  #   Seal.new(db, revision_row).put_on(at: Time.now)
  class Seal
    REVISION = %i[
      revision
      rules
      engine_profile_id
      price_list_id
      house_settings_id
      currency
      currency_exponent
      total_cents
      created_by
    ].freeze
    LINE = %i[position kind label part unit_cents cents].freeze

    # @param db [Sequel::Database]
    # @param revision [Hash] row of quote_revisions
    def initialize(db, revision)
      @db = db
      @revision = revision
      @own = { shop_id: revision[:shop_id] }
    end

    # Seals every revision that has none: for a database from before there were seals.
    def self.existing(db)
      db[:quote_revisions]
        .exclude(id: db[:quote_seals].select(:revision_id))
        .each { |row| new(db, row).put_on(at: row[:created_at]) }
    end

    # As the last act of the transaction that makes the revision; nothing can be added afterwards.
    # @return [String] SHA-256 of the bytes, in hex
    def put_on(at:)
      text = bytes
      digest = Digest::SHA256.hexdigest(text)
      @db[:quote_seals].insert(
        **@own,
        revision_id: @revision[:id],
        bytes: Sequel.blob(text),
        sha256: digest,
        created_at: at
      )
      digest
    end

    # @return [String] canonical JSON of what the rows say
    def bytes = NimbleLedger::Record::Canonical.json(document).b

    private

    def document
      number = @db[:quotes].where(**@own, id: @revision[:quote_id]).get(:number)
      @revision
        .slice(*REVISION)
        .transform_keys(&:to_s)
        .merge(
          "quote" => number,
          "created_at" => @revision[:created_at].getutc.iso8601(6),
          "content" => plain(@revision[:content]),
          "scopes" => scopes
        )
    end

    def scopes
      rows = @db[:quote_scopes].where(**@own, revision_id: @revision[:id]).order(:position).all
      rows.map do |row|
        {
          "position" => row[:position],
          "name" => row[:name],
          "quoted_tenths" => row[:quoted_tenths],
          "total_cents" => row[:total_cents],
          "request" => plain(row[:request]),
          "answer" => plain(row[:answer]),
          "page" => plain(row[:page]),
          "lines" => lines(row[:id])
        }
      end
    end

    def lines(scope_id)
      @db[:quote_lines]
        .where(**@own, scope_id: scope_id)
        .order(:position)
        .map { |row| row.slice(*LINE).transform_keys(&:to_s).merge("quantity" => row[:quantity].to_f) }
    end

    def plain(value) = JSON.parse(JSON.generate(value))
  end
end
