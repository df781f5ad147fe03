# frozen_string_literal: true

module NimbleServer
  # The one connection pool of a process, and the schema.
  module Database
    MIGRATIONS = File.join(ROOT, "server/migrations")

    # Lets migrations declare shop-owned tables: composite key, actor and time on every row.
    module ShopTable
      def shop_table(name, &block)
        create_table(name) do
          uuid :shop_id, null: false
          uuid :id, null: false
          foreign_key :created_by, :accounts, type: :Bignum
          column :created_at, :timestamptz, null: false
          primary_key %i[shop_id id]
          foreign_key [:shop_id], :shops, key: :id
          instance_exec(&block)
        end
      end
    end

    module_function

    # @param url [String] postgres URL; connections are checked before use, so a restarted server is found again
    def connect(url = ENV.fetch("DATABASE_URL"))
      db = Sequel.connect(url, max_connections: Integer(ENV.fetch("DB_POOL", "6")), preconnect: false)
      db.extension :pg_json, :connection_validator, :pg_array
      db.pool.connection_validation_timeout = 5
      db.extend(ShopTable)
      db.wrap_json_primitives = true
      db
    end

    def migrate(db)
      Sequel.extension :migration
      Sequel::Migrator.run(db, MIGRATIONS)
    end
  end
end
