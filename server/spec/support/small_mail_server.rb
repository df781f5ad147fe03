# frozen_string_literal: true

require "socket"

# A mail server of the tests: takes mail for everybody but nobody@..., and keeps what it got.
class SmallMailServer
  attr_reader :mails, :port

  def initialize
    @mails = []
    @server = TCPServer.new("127.0.0.1", 0)
    @port = @server.addr[1]
    @thread = Thread.new { loop { serve(@server.accept) } }
  end

  def close
    @thread.kill
    @server.close
  end

  private

  def serve(client)
    client.print("220 quay.example\r\n")
    while (line = client.gets)
      break if line.start_with?("QUIT")

      client.print(answer(line, client))
    end
    client.print("221 bye\r\n")
  rescue SystemCallError, IOError
    nil
  ensure
    client.close
  end

  def answer(line, client)
    case line
    when /\ARCPT TO:<nobody@/
      "550 nobody is here\r\n"
    when /\ADATA/
      client.print("354 go on\r\n")
      @mails << client.gets("\r\n.\r\n")
      "250 taken\r\n"
    else
      "250 fine\r\n"
    end
  end
end
