# frozen_string_literal: true

require "timeout"
require_relative "../../bin/support/supervisor"

# Children that fall, each counted by itself.
RSpec.describe Supervisor do
  # A clock that is set, and a supervisor that says what it does.
  let(:now) { [0.0] }
  let(:said) { [] }
  let(:supervisor) { described_class.new(clock: -> { now[0] += 0.5 }) { |line| said << line } }

  def child(code) = Process.spawn("ruby", "--disable-gems", "-e", "exit #{code}")

  it "waits longer each time a child falls, and never gives up" do
    expect((1..9).map { |falls| described_class.pause(falls) }).to eq([0, 1, 2, 4, 8, 16, 30, 30, 30])
  end

  it "keeps what the shop stands on away for some seconds at most, however often it falls" do
    starts = 0
    supervisor.keep("Web server", longest: 1) do
      starts += 1
      supervisor.stop if starts == 6
      child(starts == 6 ? 0 : 1)
    end
    supervisor.run
    expect(said.map { |line| line[/in (\d+) s/, 1].to_i }).to eq([0, 1, 1, 1, 1])
  end

  it "ends a child that was just being started when it is asked to stop, and starts no more" do
    late = 0
    pid = nil
    supervisor.keep("Starting") do
      pid = Process.spawn("sleep", "600", out: File::NULL, err: File::NULL)
      supervisor.stop # a signal that comes between the start and the keeping of its process
      pid
    end
    supervisor.keep("Late") { Process.spawn("sleep", "600", out: File::NULL).tap { late += 1 } }
    Timeout.timeout(20) { supervisor.run }
    expect(late).to eq(0)
    expect { Process.kill(0, pid) }.to raise_error(Errno::ESRCH)
  ensure
    begin
      Process.kill("KILL", pid)
    rescue StandardError
      nil
    end
  end

  it "ends a child that does not end when it is told to" do
    supervisor = described_class.new(grace: 0.2) { |line| said << line }
    reader, writer = IO.pipe
    supervisor.keep("Deaf") do
      Process
        .spawn("ruby", "--disable-gems", "-e", 'trap("TERM", "IGNORE"); puts "deaf"; $stdout.flush; sleep', out: writer)
        .tap { reader.gets && supervisor.stop }
    end
    Timeout.timeout(20) { supervisor.run }
    expect(said).to eq(["Deaf did not end when it was told to: it is ended."])
  end

  it "starts a child that fell again, says so, and leaves the others alone" do
    starts = Hash.new(0)
    supervisor.keep("Calm") { Process.spawn("sleep", "600").tap { starts["Calm"] += 1 } }
    supervisor.keep("Falling") do
      starts["Falling"] += 1
      supervisor.stop if starts["Falling"] == 4
      now[0] += 100
      child(starts["Falling"] == 4 ? 0 : 1)
    end
    supervisor.run
    expect(starts).to eq("Calm" => 1, "Falling" => 4)
    expect(said.uniq).to eq(["Falling ended by itself; starting it again."])
  end

  it "does not count one that ended well, and tries again what does not start" do
    tries = 0
    supervisor.keep("Odd") do
      now[0] += 40
      tries += 1
      raise "no such program" if tries == 2

      supervisor.stop if tries == 3
      child(0)
    end
    supervisor.run
    expect(tries).to eq(3)
    expect(said).to eq(["Odd did not start: no such program It is tried again."])
  end

  it "does not count falls that come with the ground's" do
    fallen = Hash.new(0)
    supervisor.keep("Ground", essential: true) do
      fallen["Ground"] += 1
      child(fallen["Ground"] == 1 ? 1 : 0)
    end
    supervisor.keep("Upon it") do
      fallen["Upon it"] += 1
      supervisor.stop if fallen["Upon it"] == 6
      child(1)
    end
    supervisor.run
    expect(said.first(2)).to match_array(
      ["Upon it", "Ground"].map { |name| "#{name} ended by itself; starting it again." }
    )
  end
end
