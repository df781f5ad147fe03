# frozen_string_literal: true

module NimbleServer
  # Connections, the schema and who may do what in it. The owner migrates; nimble_web serves, sees one shop at a time
  # and owns nothing; nimble_door looks up accounts, sessions and links; nimble_post carries messages and sees nothing
  # else.
  module Database
    MIGRATIONS = File.join(ROOT, "server/migrations")
    ROLES = %w[nimble_web nimble_door nimble_post].freeze

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

    # What a connection is checked with, known without one: the validator would ask for it at once.
    module AskedLater
      def valid_connection_sql = "SELECT NULL"
    end

    # Where one connection broke, those at rest beside it are gone too: each would fail a request of its own.
    module GoneTogether
      def synchronize(*)
        super
      rescue Sequel::DatabaseDisconnectError
        disconnect
        raise
      end
    end

    module_function

    # @param url [String] postgres URL; nothing is asked of the server yet, so that a process starts while it is away;
    # connections are checked before use, so a restarted server is found again
    # @param connections [Integer] one for each thread of the web process and a few to spare
    def connect(url, connections: Integer(ENV.fetch("DB_POOL", "10")))
      db = Sequel.connect(url, max_connections: connections, preconnect: false, test: false)
      db.extend(AskedLater)
      db.extend(GoneTogether)
      db.extension :pg_json, :pg_array, :connection_validator
      db.pool.connection_validation_timeout = 5
      db.extend(ShopTable)
      db.wrap_json_primitives = true
      db
    end

    # As the owner.
    # @raise [AppliedMigrations::Edited] for data that another migration of the same number has made
    def migrate(db)
      Sequel.extension :migration
      Sequel::Migrator.run(db, MIGRATIONS)
      AppliedMigrations.new(db).compare
    end

    # Lets the serving roles sign in, as the owner.
    # @param passwords [Hash{String=>String}] role to password
    def let_in(db, passwords)
      passwords
        .slice(*ROLES)
        .each { |role, password| db.run("ALTER ROLE #{role} LOGIN PASSWORD #{db.literal(password)}") }
    end

    # Row-level security: the web role sees and writes the rows of the shop its request is for.
    def wall(db, table)
      own = "shop_id = nullif(current_setting('nimble.shop', true), '')::uuid"
      db.run "ALTER TABLE #{table} ENABLE ROW LEVEL SECURITY"
      db.run "CREATE POLICY own_shop ON #{table} TO nimble_web USING (#{own}) WITH CHECK (#{own})"
    end

    # Holds one connection for a request and tells the database whose rows it is about.
    # @param shop_id [String]
    def within_shop(db, shop_id)
      db.synchronize do
        say_shop(db, shop_id)
        yield
      ensure
        leave_shop(db)
      end
    end

    def say_shop(db, shop_id) = db.get(Sequel.function(:set_config, "nimble.shop", shop_id, false))

    # A connection that broke on the way says nothing any more; the pool throws it away.
    def leave_shop(db)
      say_shop(db, "")
    rescue Sequel::Error
      nil
    end
    private_class_method :say_shop, :leave_shop
  end
end
