# frozen_string_literal: true

module NimbleServer
  module Features
    module Workshop
      # Where an engine begins: with nothing but how it is built, with a pattern, with another engine of the shop, with
      # a file, or with its own newest revision.
      class Beginning
        BEGAN = %w[bare pattern engine file revision].freeze

        attr_reader :code, :revision, :began

        # @param given [Hash] see the contract, BeginDraft: one of "bare", "pattern", "engine", "file", or none of them
        # to go on with the engine itself
        def initialize(shop, given, kinds:, house:)
          @shop = shop
          @given = given
          @kinds = kinds
          @house = house
          @named = Engines::Code.new(shop, given["code"])
          @code = @named.text
          @began = (BEGAN & given.keys).first || "revision"
          @revision = own && own[:revision]
        end

        # A new engine needs a code that can stand in an address, and that nobody uses.
        # @raise [Refusal] 409
        # @raise [NimbleLedger::InvalidInput]
        def refuse_code
          @named.refuse_address
          @named.refuse_taken unless began == "revision"
        end

        # @return [Hash] a sound profile
        def profile
          case began
          when "bare"
            bare
          when "pattern"
            Engines::Patterns.copy({ "pattern" => @given["pattern"], **named }, kinds: @kinds)
          when "engine"
            renamed(Library.engine(@shop, Library.newest_engine(@shop, @given["engine"])[:id]).source)
          when "file"
            renamed(NimbleLedger::Profile::Engine.build(@given["file"]).source)
          else
            raise Refusal.not_found("engine #{code}") unless own

            Library.engine(@shop, own[:id]).source
          end
        end

        private

        def own = @named.newest
        def named = { "code" => code, "name" => @given["name"].to_s.strip.then { |name| name.empty? ? code : name } }
        def renamed(source) = source.merge(named)

        def bare
          answers = { "layers" => [], "moves" => [], "plug" => {}, **@given["bare"], **named, "provisional" => false }
          NimbleLedger::Workshop::Sketch.new(answers, kinds: @kinds, house: @house).profile
        end
      end
    end
  end
end
