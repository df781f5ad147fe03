# frozen_string_literal: true

module NimbleServer
  module Features
    module Counter
      # One search over cars, people, quotes and jobs: every word must occur.
      class Finder
        MOST_PEOPLE = 12
        MOST_JOBS = 12

        def initialize(shop)
          @shop = shop
        end

        # @return [Hash] see the contract, Found
        def find(text)
          words = text.to_s.strip.downcase.split.first(6)
          {
            "vehicles" => Vehicles::Garage.new(@shop).search(text).map { |row| Vehicles::Garage.card(row, @shop.now) },
            "people" => words.empty? ? [] : people(words),
            "quotes" => Quotes::Desk.new(@shop).list(text),
            "jobs" => words.empty? ? [] : jobs(words)
          }
        end

        private

        def people(words)
          text = Sequel.join(%i[name phone email].map { |column| Sequel.function(:coalesce, column, "") }, " ")
          rows =
            words.reduce(@shop[:customers].where(merged_into: nil)) do |set, word|
              set.where(Sequel.ilike(text, "%#{set.escape_like(word)}%"))
            end
          rows.order(:name, :id).limit(MOST_PEOPLE).map { |row| Customers::Directory.row(row) }
        end

        # By the function that may use the index (migration 013).
        def jobs(words)
          patterns = words.map { |word| "%#{@shop.db[:jobs].escape_like(word)}%" }
          ids =
            @shop
              .db
              .from(Sequel.function(:jobs_found, Sequel.pg_array(patterns, :text), MOST_JOBS).as(:id))
              .select_map(:id)
          @shop[:jobs].where(id: ids).order(Sequel.desc(:updated_at), :id).map { |row| Jobs::Row.shown(row) }
        end
      end
    end
  end
end
