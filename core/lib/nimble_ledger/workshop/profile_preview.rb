# frozen_string_literal: true

module NimbleLedger
  module Workshop
    # What a profile under the pencil says so far (model.md section 1): its faults where they are, what lies over which
    # cylinder, its page as the library would show it, test prices, where its figures come from, and what is unlike the
    # other engines. A profile with faults has no page and no prices.
    class ProfilePreview
      # A test price: what is done, and on which cylinders.
      Try = Struct.new(:what, :targets)

      # @param profile [Hash] anything that was typed
      # @param kinds [UsualTimes]
      # @param house [House::Settings]
      # @param equipment [Array<String>]
      # @param catalog [Parts::Catalog, nil]
      def initialize(profile, kinds:, house: House::Settings.defaults, equipment: [], catalog: nil)
        @profile = profile
        @kinds = kinds
        @house = house
        @equipment = equipment
        @catalog = catalog
        @faults = Profile::SHAPE.faults(profile)
        @shaped = @faults.empty?
        build if @shaped
      end

      # @return [Hash] see the contract, WorkshopLook
      def to_h
        {
          "faults" => @faults,
          "warnings" => @engine ? @engine.warnings : [],
          "over" => layers ? layers.ids.map { |id| { "step" => id, "cylinders" => layers.over(id) } } : [],
          "forks" => layers ? layers.forks : [],
          "origins" => @shaped ? Profile::Origins.counts(@profile) : nil,
          "open" => @engine ? open : [],
          "unlike" => @shaped ? unlike : [],
          "page" => page&.to_h,
          "tries" => @engine ? tries : []
        }
      end

      private

      def build
        @engine = Profile::Engine.shaped(@profile)
      rescue InvalidInput => e
        @faults = e.details
      end

      def layers = @layers ||= @shaped && Layers.new(@profile)

      def page
        return nil unless @engine

        @page ||= Library::EnginePage.new(@engine, house: @house, equipment: @equipment, catalog: @catalog, only: true)
      end

      # What a reader of the profile still has to know.
      def open
        plug = @profile["plug"]
        found = page.unpriced.map { |part| { "code" => "no-price", "of" => part } }
        found << { "code" => "no-plug-part", "of" => "plug" } unless plug["part"] || own_plugs?
        found << { "code" => "no-torque", "of" => "plug" } unless plug["torque_nm"] || plug["torque_range_nm"]
        found << { "code" => "torque-assumes", "of" => "plug" } if plug["torque_nm"] && !plug["torque_assumes"]
        found
      end

      def own_plugs? = @engine.targets.select { |target| target.work == "plug" }.all?(&:plug_part)

      def unlike
        Profile::Origins::KEYS.flat_map do |list, keys|
          @profile[list].each_with_index.flat_map do |row, i|
            keys.filter_map do |key|
              found = @kinds.unlike(UsualTimes.of(row), key, row[key][1])
              found && { "path" => "/#{list}/#{i}/#{key}", **found.to_h.transform_keys(&:to_s) }
            end
          end
        end
      end

      # From the lightest to the whole engine.
      def tries
        return [] unless extremes

        easy, deep = extremes
        {
          "easiest-plug" => on(%w[plug], [easy]),
          "deepest" => on(%w[plug coil], [deep]),
          "deepest-bank" => on(%w[plug], bank_of(deep)),
          "all-plugs" => on(%w[plug], numbers),
          "all" => on(%w[plug coil], numbers)
        }.map { |what, targets| Try.new(what, targets) }.uniq(&:targets).map { |try| priced(try) }
      end

      # The cylinders whose plugs are quickest and slowest; nil where none can be reached.
      def extremes
        known = page.soundings.find { |row| row["work"] == "plug" }["cylinders"].select { |row| row["hours"] }
        return nil if known.empty?

        [
          known.min_by { |row| [row["hours"], row["cylinder"]] },
          known.max_by { |row| [row["hours"], -row["cylinder"]] }
        ].map { |row| row["cylinder"] }
      end

      def numbers = @engine.cylinders.map(&:number)

      def bank_of(number)
        bank = @engine.cylinders.find { |cylinder| cylinder.number == number }.bank
        @engine.cylinders.select { |cylinder| cylinder.bank == bank }.map(&:number)
      end

      def on(works, cylinders)
        @engine.targets.select { |target| works.include?(target.work) && target.cylinders.intersect?(cylinders) }
      end

      def priced(try)
        job = car.job(try.targets)
        price = job.price
        said(try).merge(
          "hours" => job.quoted_tenths / 10.0,
          "cents" => price&.total_cents,
          "missing" => price ? price.missing : []
        )
      rescue ImpossiblePlan
        said(try).merge("hours" => nil, "cents" => nil, "missing" => [])
      end

      def said(try) = { "what" => try.what, "cylinders" => try.targets.flat_map(&:cylinders).uniq.sort }

      def car = @car ||= page.car.with(catalog: @catalog)
    end
  end
end
