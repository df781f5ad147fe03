# frozen_string_literal: true

module NimbleServer
  module Features
    module Record
      # Holds what the tables say of offers, answers, questions and jobs against the acts in the record, both ways:
      # nothing stands in a row that was not done, and nothing that was done is missing. Part of bin/verify.
      class Acts
        OFFERED = %w[offer-sent offer-read-out offer-printed].freeze
        ANSWERED = %w[yes no].freeze
        JOB = %w[job-opened job-enlarged].freeze

        # @param db [Sequel::Database] as the owner
        # @param links [Array<NimbleLedger::Record::Chain::Link>] of the shop's record
        def initialize(db, shop_id, links)
          @db = db
          @shop_id = shop_id
          @entries = links.map { |link| JSON.parse(link.bytes) }.group_by { |entry| entry["kind"] }
        end

        # @return [String, nil] what does not hold, in words; nil when all does
        def fault = offer_fault || answer_fault || question_fault || job_fault

        private

        def entries(kinds) = kinds.flat_map { |kind| @entries.fetch(kind, []) }
        def rows(table) = @db[table].where(shop_id: @shop_id)

        def offer_fault
          scopes = rows(:offer_scopes).order(:position).all.group_by { |row| row[:offer_id] }
          said = entries(OFFERED).to_h { |entry| [entry["body"]["offer"], entry] }
          held =
            rows(:offers).order(:created_at).all.to_h { |row| [row[:id], offered(row, scopes.fetch(row[:id], []))] }
          compare(said, held, "the offer") { |entry| entry["body"].except("offer") }
        end

        def offered(row, scopes)
          {
            "recipient" => row[:recipient],
            "channel" => row[:channel],
            "expires_at" => row[:expires_at].getutc.iso8601,
            "scopes" =>
              scopes.map do |scope|
                scope.slice(:title, :total_cents, :limit_cents, :agreed_before_cents).transform_keys(&:to_s)
              end
          }
        end

        def answer_fault
          said = entries(ANSWERED).to_h { |entry| [[entry["body"]["offer"], place(entry)], entry] }
          held = rows(:offer_answers).all.to_h { |row| [[row[:offer_id], row[:position]], answered(row)] }
          compare(said, held, "the answer") do |entry|
            body = entry["body"]
            values = {
              "answer" => entry["kind"],
              "how" => body["how"],
              "name" => body["name"],
              "reason" => body["reason"]
            }
            entry["kind"] == "yes" ? values.merge("limit_cents" => body["limit_cents"]) : values
          end
        end

        # The scope an answer is about, from "…, scope 2".
        def place(entry) = entry["subject"][/scope (\d+)\z/, 1].to_i - 1

        def answered(row)
          values = %i[answer how name reason].to_h { |name| [name.to_s, row[name]] }
          row[:answer] == "yes" ? values.merge("limit_cents" => row[:limit_cents]) : values
        end

        def question_fault
          said = entries(%w[question]).map { |entry| entry["body"]["words"] }.sort
          held = rows(:offer_questions).select_map(:words).sort
          said == held ? nil : "the questions are not those in the record"
        end

        def job_fault
          said = entries(JOB).sort_by { |entry| entry["seq"] }.to_h { |entry| [entry["subject"], entry] }
          held =
            rows(:jobs).all.to_h do |row|
              ["job #{row[:number]}", row.slice(:agreed_cents, :limit_cents).transform_keys(&:to_s)]
            end
          compare(said, held, "the job") { |entry| entry["body"].slice("agreed_cents", "limit_cents") }
        end

        # @param said [Hash{Object=>Hash}] entries by what they are about
        # @param held [Hash{Object=>Hash}] what the rows say of it
        # @yieldreturn [Hash] what an entry says of it
        def compare(said, held, what)
          said
            .sort_by { |_key, entry| entry["seq"] }
            .each do |key, entry|
              return "entry #{entry["seq"]}: #{what} it tells of is missing" unless held.key?(key)
              return "entry #{entry["seq"]}: #{what} was changed" unless held[key] == yield(entry)
            end
          if (held.keys - said.keys).empty?
            nil
          else
            "#{what} #{[*(held.keys - said.keys).first].first} is not in the record"
          end
        end
      end
    end
  end
end
