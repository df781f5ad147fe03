# frozen_string_literal: true

module NimbleServer
  module Features
    module Workshop
      # Two profiles side by side: two revisions of one engine, two engines, or what is under the pencil beside either;
      # and in words what the second has differently.
      class Comparison
        DRAFT = "draft"

        # A profile that is compared: its code and revision, as they are said, and what the library would show of it.
        Side = Struct.new(:code, :revision, :engine, :page)

        def initialize(shop, library:)
          @shop = shop
          @library = library
        end

        # @param sides [Array<Array(String, String)>] two codes, each with a revision ("3", "draft"; nil for the newest)
        # @return [Hash] see the contract, Comparison
        # @raise [NimbleLedger::InvalidInput] for a draft that has faults
        def of(*sides)
          pair = sides.map { |code, revision| revision == DRAFT ? draft(code) : kept(code, revision) }
          {
            "changes" => NimbleLedger::Library::Difference.new(*pair.map { |side| side.engine.source }).lines,
            "rows" => NimbleLedger::Library::AlignedSteps.new(*pair.map(&:engine)).rows,
            "sides" => pair.map { |side| said(side) }
          }
        end

        private

        def kept(code, revision)
          number = Engines::Routes.revision("revision" => revision)
          page = @library.page(code, revision: number)
          Side.new(code, page["revision"], @library.engine(code, number), page["page"])
        end

        def draft(code)
          found = Drafts.new(@shop).page(code)
          Side.new(code, nil, NimbleLedger::Profile::Engine.build(found["profile"]), found["look"]["page"])
        end

        def said(side)
          { "code" => side.code, "name" => side.engine.name, "revision" => side.revision, "page" => side.page }
        end
      end
    end
  end
end
