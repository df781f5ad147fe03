# frozen_string_literal: true

require "socket"

# Stands between a program and its database, and from one word on hands no answer back: as a network does that swallows
# what it is given.
class SilentDatabase
  attr_reader :port

  # @param port [Integer] of the database
  # @param word [String] what is asked last
  def initialize(port, word)
    @database = port
    @word = word
    @server = TCPServer.new("127.0.0.1", 0)
    @port = @server.addr[1]
    @open = []
    @threads = [Thread.new { loop { serve(@server.accept) } }]
  end

  # @return [Boolean] whether the word was asked
  def silent? = @silent == true

  def close
    @threads.each(&:kill)
    [@server, *@open].each(&:close)
  end

  private

  def serve(program)
    database = TCPSocket.new("127.0.0.1", @database)
    @open.push(program, database)
    @threads << Thread.new { hand_on(program, database) { |text| @silent ||= text.include?(@word) } }
    @threads << Thread.new { hand_on(database, program) { nil } }
  end

  def hand_on(from, to)
    loop do
      text = from.readpartial(65_536)
      yield text
      to.write(text) unless silent?
    end
  rescue IOError, SystemCallError
    nil
  end
end
