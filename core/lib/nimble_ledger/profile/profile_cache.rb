# frozen_string_literal: true

module NimbleLedger
  module Profile
    # What was worked out from a profile and does not change while it stands: kept by what else it depends on; of each
    # kind the one not asked for longest is forgotten when there are many. A profile is served by many threads; what two
    # of them work out at once is worked out twice, and is the same.
    #
    #   engine.kept.of(:costs, [1, 1.2]) { work_out }
    class ProfileCache
      MOST = 16

      def initialize
        @kinds = {}
        @lock = Mutex.new
      end

      # @param kind [Symbol] what it is
      # @param key [Object] what it depends on beside the profile
      # @yieldreturn [Object] what is kept, not nil; whoever is handed it changes nothing in it
      def of(kind, key)
        kept(kind, key) || keep(kind, key, yield)
      end

      private

      def kept(kind, key)
        @lock.synchronize do
          list = (@kinds[kind] ||= {})
          found = list.delete(key)
          list[key] = found if found
        end
      end

      def keep(kind, key, made)
        @lock.synchronize do
          list = @kinds[kind]
          list.shift if list.size >= MOST
          list[key] = made
        end
      end
    end
  end
end
