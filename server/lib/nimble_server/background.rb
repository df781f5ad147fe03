# frozen_string_literal: true

module NimbleServer
  # Work in the background (que): jobs lie in the database, put there by the transaction that makes them necessary, and
  # a process of its own works them off (server/learner.rb).
  #
  #   Background.on(shop.db) { LearnJob.enqueue(shop.id) }
  module Background
    KEY = :nimble_background
    Que.connection_proc = ->(&block) { Background.db.synchronize(&block) }

    class << self
      # The database of a process that works jobs off.
      attr_writer :working_on

      # @return [Sequel::Database]
      def db = Thread.current[KEY] || @working_on

      # Puts jobs into this database, with what its transaction does.
      def on(db)
        before = Thread.current[KEY]
        Thread.current[KEY] = db
        yield
      ensure
        Thread.current[KEY] = before
      end

      # Works jobs off, one after another, until the process is told to end; a database that was away is found again.
      # @param db [Sequel::Database]
      # @param url [String] of the same database
      # @param queue [String] those of this queue
      def work(db, url, queue: Que.default_queue)
        self.working_on = db
        end_at_once
        loop do
          Que::Locker.new(connection_url: url, queues: [queue], worker_priorities: [nil], poll_interval: 5)
          sleep
        rescue PG::Error, Sequel::Error
          sleep 1
        end
      end

      private

      # Nothing is held here that is not in the database, and what is under way there is taken back with its connection.
      # A thread of que's that is ended in good order asks the database once more, and may wait for it for ever.
      def end_at_once = %w[INT TERM].each { |signal| trap(signal) { exit!(0) } }
    end
  end
end
