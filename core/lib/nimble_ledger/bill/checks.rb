# frozen_string_literal: true

module NimbleLedger
  module Bill
    # What the shape of a bill request cannot say: targets that are in scopes, trouble that can have been, pieces that
    # are on a line (formats.md). Every fault with its path.
    class Checks
      # @param hash [Hash] that fits Request::SHAPE
      # @param part [Estimate::CarPart]
      def initialize(hash, part)
        @hash = hash
        @engine = part.car.engine
        @part = part
        @scoped = hash["scopes"].flat_map { |scope| scope["targets"] }
      end

      # @raise [InvalidInput]
      def check!
        fault("/scopes", "is empty, and nothing was found out either") if @scoped.empty? && @hash["diagnosis"].nil?
        scopes
        named
        happened
        (@hash["paid"] || []).each_with_index { |row, i| paid(row, "/paid/#{i}") }
      end

      # @param jobs [Jobs]
      # @raise [InvalidInput]
      def check_pieces!(jobs)
        more = jobs.saved_pieces
        lines = jobs.on_lines
        pieces("unused") { |part| lines.fetch(part, 0) + more.fetch(part, 0) }
        may = jobs.if_needed(jobs.all)
        pieces("used") { |part| may.fetch(part, 0) }
      end

      private

      def fault(path, message) = raise(InvalidInput.at(path, message))

      def scopes
        seen = {}
        @hash["scopes"].each_with_index do |scope, i|
          @part.targets(scope["targets"], "/scopes/#{i}/targets")
          scope["targets"].each_with_index do |id, j|
            fault("/scopes/#{i}/targets/#{j}", "#{id} is in scope #{seen[id]} already") if seen.key?(id)
            seen[id] = i
          end
          fault("/scopes/#{i}/limit_cents", "is below what was agreed") if scope["limit_cents"] < scope["agreed_cents"]
          Estimate::Override.from(scope["override"], path: "/scopes/#{i}/override")
        end
      end

      def named
        %w[not_done tried owed].each do |key|
          (@hash[key] || []).each_with_index do |id, i|
            fault("/#{key}/#{i}", "#{id} is in no scope") unless @scoped.include?(id)
          end
        end
        others = (@hash["not_done"] || []) + (@hash["owed"] || [])
        (@hash["tried"] || []).each_with_index do |id, i|
          fault("/tried/#{i}", "#{id} is in not_done or owed too") if others.include?(id)
        end
      end

      def happened
        given = @hash["happened"] || {}
        sums = Hash.new(0)
        %w[broken thread].each do |key|
          (given[key] || {}).each { |id, count| trouble(id, sums[id] += count, "/happened/#{key}/#{Shape.key(id)}") }
        end
        (given["mishaps"] || []).each_with_index do |row, i|
          path = "/happened/mishaps/#{i}"
          step = @engine.step(row["step"]) or fault("#{path}/step", "names step #{row["step"]}, which is not there")
          known = step.mishaps.any? { |one| one.what == row["what"] }
          fault("#{path}/what", "is no mishap of #{row["step"]}") unless known
          fault(path, "happened twice") if given["mishaps"].first(i).include?(row)
        end
      end

      def trouble(id, count, path)
        target = @engine.target(id)
        fault(path, "#{id} is in no scope") unless target && @scoped.include?(id)
        fault(path, "#{id} is no plug") unless target.plug?
        fault(path, "is more plugs than #{id} has (#{target.plugs})") if count > target.plugs
      end

      def paid(row, path)
        fault("#{path}/cents", "must not be 0") if row["cents"].zero?
        year, month, day = row["on"].split("-").map(&:to_i)
        fault("#{path}/on", "is a day that is not in the calendar") unless Date.valid_date?(year, month, day)
      end

      def pieces(key)
        sums = Hash.new(0)
        (@hash[key] || []).each_with_index do |row, i|
          most = yield(row["part"])
          fault("/#{key}/#{i}/part", "#{row["part"]} is on no line") if most.zero?
          next if (sums[row["part"]] += row["quantity"]) <= most

          fault("/#{key}/#{i}/quantity", "is more than the #{most} there are")
        end
      end
    end
  end
end
