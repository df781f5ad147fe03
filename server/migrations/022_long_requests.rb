# frozen_string_literal: true

# Requests that take long are worked off beside the web process (long_request.rb): what was asked, and the answer in
# parts until it is fetched. Nothing of it has to survive a crash: whoever waits asks again.
Sequel.migration do
  up do
    run <<~SQL
      CREATE UNLOGGED TABLE long_requests (
        shop_id uuid NOT NULL,
        id uuid NOT NULL,
        account jsonb NOT NULL,
        verb text NOT NULL,
        path text NOT NULL,
        query text NOT NULL,
        body text NOT NULL,
        headers jsonb NOT NULL,
        state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'working', 'done', 'failed', 'cancelled')),
        status integer,
        answer_headers jsonb,
        parts integer NOT NULL DEFAULT 0,
        created_at timestamptz NOT NULL,
        PRIMARY KEY (shop_id, id)
      );
      CREATE UNLOGGED TABLE long_request_parts (
        shop_id uuid NOT NULL,
        request_id uuid NOT NULL,
        number integer NOT NULL,
        bytes bytea NOT NULL,
        PRIMARY KEY (shop_id, request_id, number),
        FOREIGN KEY (shop_id, request_id) REFERENCES long_requests (shop_id, id) ON DELETE CASCADE
      );
      CREATE INDEX long_requests_age ON long_requests (shop_id, created_at);
    SQL
    %i[long_requests long_request_parts].each { |table| NimbleServer::Database.wall(self, table) }
    run "GRANT SELECT, INSERT, UPDATE, DELETE ON long_requests, long_request_parts TO nimble_web"
  end

  down do
    drop_table(:long_request_parts)
    drop_table(:long_requests)
  end
end
