# frozen_string_literal: true

require_relative "spec_helper"
require_relative "support/silent_database"

# The processes that work jobs off, told to end.
RSpec.describe NimbleServer::Background do
  it "ends at once, also where the database does not answer what it was asked last" do
    silent = SilentDatabase.new(TestServer.cluster.port, "LISTEN que_listener")
    url = TestServer.cluster.url("nimble_web").sub(%r{:\d+/}, ":#{silent.port}/")
    pid = Process.spawn({ "WEB_DATABASE_URL" => url }, "ruby", "server/learner.rb", chdir: NimbleServer::ROOT)
    expect(Patience.until { silent.silent? }).to be(true)
    Process.kill("TERM", pid)
    expect(Patience.until(20) { Process.wait(pid, Process::WNOHANG) }).to eq(pid)
  ensure
    begin
      Process.kill("KILL", pid)
      Process.wait(pid)
    rescue Errno::ESRCH, Errno::ECHILD
      nil
    end
    silent&.close
  end
end
