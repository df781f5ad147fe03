# frozen_string_literal: true

module NimbleServer
  # Sign-in comes first: whoever is not signed in learns so before a body is read or a contract checked. And nobody who
  # is signed in can fill a web process: of one account so many requests are worked on at once, a few wait, the rest is
  # told to come back.
  class Admission
    OPEN = %w[/api/health /api/session /api/setup /api/join /api/join/look].freeze
    AT_ONCE = 2
    WAITING = 3
    PATIENCE = 20 # seconds
    SIGNED_OUT = JSON.generate("error" => { "code" => "signed_out", "message" => "Sign in first.", "details" => [] })
    CROWDED =
      JSON.generate(
        "error" => {
          "code" => "crowded",
          "message" => "Too much at once from this account. Nothing was lost; try again in a moment.",
          "details" => []
        }
      )

    def initialize(app)
      @app = app
      @inside = Hash.new(0)
      @asked = Hash.new(0)
      @lock = Mutex.new
      @room = ConditionVariable.new
    end

    def call(env)
      return @app.call(env) if OPEN.include?(env["PATH_INFO"]) || !env["PATH_INFO"].start_with?("/api/")

      account = env["nimble.account"] or return 401, { "content-type" => "application/json" }, [SIGNED_OUT]
      return crowded unless enter(account[:id])

      worked_on(env) { leave(account[:id]) }
    end

    private

    # Until the answer is whole.
    def worked_on(env, &leave)
      answer = @app.call(env)
      going_on = answer.last.is_a?(InTwoParts)
      answer.last.when_done(&leave) if going_on
      answer
    ensure
      leave.call unless going_on
    end

    def enter(id)
      @lock.synchronize do
        return false if @asked[id] >= AT_ONCE + WAITING

        @asked[id] += 1
        deadline = now + PATIENCE
        @room.wait(@lock, deadline - now) while @inside[id] >= AT_ONCE && now < deadline
        next give_up(id) if @inside[id] >= AT_ONCE

        @inside[id] += 1
        true
      end
    end

    def give_up(id)
      forget(@asked, id)
      false
    end

    def leave(id)
      @lock.synchronize do
        forget(@inside, id)
        forget(@asked, id)
        @room.broadcast
      end
    end

    def forget(counts, id) = (counts[id] -= 1).positive? || counts.delete(id)

    def crowded = [429, { "content-type" => "application/json", "retry-after" => "1" }, [CROWDED]]

    def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
