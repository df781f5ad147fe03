# frozen_string_literal: true

require "fileutils"

module NimbleServer
  module Features
    module Record
      # The newest entry of every shop's record, kept in a file outside the database (beside the keys), so that a record
      # that was cut, emptied or put back to an older one is seen without any customer's paper. One line a shop:
      # "7c0e… 412 9c1f…".
      #
      #   heads = ChainHeads.new("data/record_heads")
      #   heads.note(db)           # what has grown
      #   heads.to_h               #=> { "7c0e…" => Head }
      class ChainHeads
        # Where a record ended.
        Head = Struct.new(:seq, :mac) { def short = "#{seq} #{mac[0, NimbleLedger::Record::Chain::SHORT]}" }

        LINE = /\A(\h{8}-\h{4}-\h{4}-\h{4}-\h{12}) (\d{1,15}) (\h{64})\z/

        # @param path [String]
        def initialize(path)
          @path = path
        end

        # @return [Hash{String=>Head}] by shop
        # @raise [ArgumentError] for a file that is not one of ours
        def to_h
          return {} unless File.exist?(@path)

          File
            .readlines(@path, chomp: true)
            .to_h do |line|
              id, seq, mac = line.match(LINE)&.captures
              raise ArgumentError, "#{@path} has a line that is no head: #{line[0, 60].inspect}" unless id

              [id, Head.new(seq.to_i, mac)]
            end
        end

        # Notes records that have grown; one that no longer goes on from where it was noted keeps its line.
        # @param db [Sequel::Database] as the owner
        # @return [Array<String>] ids of shops whose record does not go on
        def note(db)
          known = to_h
          newest = newest_of(db)
          stopped = known.reject { |id, head| goes_on?(db, id, head, newest[id]) }.keys
          write(known.merge(newest.except(*stopped)))
          stopped
        end

        private

        def newest_of(db)
          db[:record_entries]
            .distinct(:shop_id)
            .order(:shop_id, Sequel.desc(:seq))
            .select_map(%i[shop_id seq mac])
            .to_h { |id, seq, mac| [id, Head.new(seq, mac)] }
        end

        def goes_on?(db, id, head, newest)
          return false if newest.nil? || newest.seq < head.seq
          return newest.mac == head.mac if newest.seq == head.seq

          db[:record_entries].where(shop_id: id, seq: head.seq).get(:mac) == head.mac
        end

        # Whole or not at all, and on the disk before it counts.
        def write(heads)
          text = heads.sort.map { |id, head| "#{id} #{head.seq} #{head.mac}\n" }.join
          return if File.exist?(@path) && File.read(@path) == text

          File.open("#{@path}.new", File::WRONLY | File::CREAT | File::TRUNC | File::NOFOLLOW, 0o600) do |file|
            file.write(text)
            file.fsync
          end
          File.rename("#{@path}.new", @path)
        end
      end
    end
  end
end
