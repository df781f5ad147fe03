# frozen_string_literal: true

require_relative "../../server/lib/nimble_server"

# Keeps the head of every shop's record in a file beside the keys while the program runs: told by the web processes
# when a record grows (features/record/act_log.rb), it looks and writes. It runs in bin/start's own process, whose user
# the web processes are not.
class HeadsKeeper
  PAUSE = 1 # second between two looks when the database is away
  PATIENCE = 5 # seconds in which it ends

  # @param url [String] of the database, as the owner
  # @param heads [NimbleServer::Features::Record::ChainHeads]
  # @yieldparam line [String] what to say
  def initialize(url, heads, &say)
    @url = url
    @heads = heads
    @say = say
    @told = []
  end

  def start
    @thread = Thread.new { run }
    self
  end

  def stop
    @thread&.kill
    @thread&.join(PATIENCE)
    @db&.disconnect
  end

  private

  def run
    @db = NimbleServer::Database.connect(@url, connections: 1)
    loop do
      look
      @db.listen(NimbleServer::Features::Record::ActLog::CHANNEL, timeout: 5, after_listen: ->(_connection) { look })
    rescue Sequel::Error, SystemCallError
      sleep PAUSE
    end
  end

  def look
    stopped = @heads.note(@db)
    (stopped - @told).each do |id|
      @say.call("The record of shop #{id} no longer goes on from where it stood. bin/verify says where.")
    end
    @told = stopped
  end
end
