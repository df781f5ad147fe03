# frozen_string_literal: true

# Keeps child processes running: one that ends by itself is started again, at once the first time, after growing pauses
# when it goes on falling; one that ends well (it has grown too large, say) has not fallen. Each is counted by itself,
# and none takes another along. Falls that come with a fall of what they all stand on (the database) are not counted.
#
#   supervisor = Supervisor.new { |line| puts line }
#   supervisor.keep("The post") { Process.spawn("post") }
#   supervisor.run            # until #stop, and all have ended
class Supervisor
  PAUSES = [0, 1, 2, 4, 8, 16, 30].freeze # seconds before the first, second… start after a fall
  SHORT = 4 # seconds at most before what the shop stands on starts again, however often it fell
  CALM = 60 # seconds after which a child that runs has fallen for the first time again
  EXCUSED = 15 # seconds after a fall of the ground in which others may fall with it
  GRACE = 15 # seconds a child that was told to end has for it; after them it is ended

  # A child: what it is called, how it is started, its process, how often it fell lately, when it starts again.
  Child = Struct.new(:name, :start, :pid, :falls, :since, :due, :essential, :longest, keyword_init: true)

  # @param clock [#call] seconds that only go forward
  # @param grace [Numeric] seconds between telling a child to end and ending it
  # @yieldparam line [String] what to say
  def initialize(clock: -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) }, grace: GRACE, &say)
    @children = []
    @clock = clock
    @grace = grace
    @say = say
    @wake = IO.pipe
    @stopping = false
  end

  # @param essential [Boolean] whether others stand on it
  # @param longest [Integer] seconds at most before it starts again
  # @yieldreturn [Integer] the process it started
  def keep(name, essential: false, pid: nil, longest: PAUSES.last, &start)
    @children << Child.new(
      name: name,
      start: start,
      pid: pid,
      falls: 0,
      since: @clock.call,
      essential: essential,
      longest: longest
    )
  end

  # Starts them, and keeps them until #stop.
  def run
    trap("CHLD") { wake }
    @children.each { |child| begin_again(child) unless child.pid }
    turn until @stopping && @children.none? { |child| child.pid && !child.essential }
  ensure
    trap("CHLD", "DEFAULT")
  end

  # Tells all of them to end, and #run ends those that do not; may be called from a signal's handler.
  def stop
    return if @stopping

    @stopping = true
    @children.each { |child| signal(child.pid, "TERM") if child.pid && !child.essential }
    wake
  end

  def stopping? = @stopping

  # How long a child waits before it starts again.
  # @param falls [Integer] how often it fell without a calm between
  # @param longest [Integer] seconds
  def self.pause(falls, longest: PAUSES.last) = [PAUSES.fetch([falls - 1, 0].max, PAUSES.last), longest].min

  private

  def turn
    rest
    reap
    return end_the_late if @stopping

    now = @clock.call
    @children.each { |child| begin_again(child) if child.pid.nil? && child.due <= now }
  end

  # Until a child ends, somebody asks for the end, or one is due.
  def rest
    due = @stopping ? late_at : @children.reject(&:pid).filter_map(&:due).min
    IO.select([@wake.first], nil, nil, due && [due - @clock.call, 0].max)
    @wake.first.read_nonblock(1_000, exception: false)
  end

  # When whoever was told to end and has not is ended.
  def late_at = @late_at ||= @clock.call + @grace

  def end_the_late
    return if @clock.call < late_at

    @children
      .reject(&:essential)
      .select(&:pid)
      .each do |child|
        @say.call("#{child.name} did not end when it was told to: it is ended.")
        signal(child.pid, "KILL")
      end
    @late_at = nil
  end

  def reap
    while (pid, status = Process.wait2(-1, Process::WNOHANG))
      child = @children.find { |one| one.pid == pid } or next
      child.pid = nil
      next if @stopping

      status.success? ? child.due = @clock.call : fell(child)
    end
  rescue Errno::ECHILD
    @children.each { |child| child.pid = nil }
  end

  def fell(child)
    now = @clock.call
    @ground_fell_at = now if child.essential
    child.falls = 0 if now - child.since > CALM
    child.falls += 1 if child.essential || !excused?(now)
    wait = Supervisor.pause(child.falls, longest: child.longest)
    child.due = now + wait
    @say.call("#{child.name} ended by itself; starting it again#{" in #{wait} s" if wait.positive?}.")
  end

  def excused?(now) = @ground_fell_at && now - @ground_fell_at < EXCUSED

  def begin_again(child)
    return if @stopping

    child.since = @clock.call
    child.pid = child.start.call
    child.due = nil
    # asked to end while it was being started: nobody has told it yet
    signal(child.pid, "TERM") if @stopping && !child.essential
  rescue StandardError => e
    child.falls += 1
    child.due = @clock.call + Supervisor.pause(child.falls + 1, longest: child.longest)
    @say.call("#{child.name} did not start: #{e.message.lines.first&.chomp} It is tried again.")
  end

  def signal(pid, name)
    Process.kill(name, pid)
  rescue Errno::ESRCH
    nil
  end

  def wake = @wake.last.write_nonblock(".", exception: false)
end
