# frozen_string_literal: true

module NimbleLedger
  # Where the engine and the catalog of a request come from: written into it, named by path or id, or built already.
  # Whoever reads files or a library hands in its own; this one takes inline objects only.
  class Documents
    # @param engine [Profile::Engine, nil] built already, in place of what requests say
    # @param catalog [Parts::Catalog, nil]
    def initialize(engine: nil, catalog: nil)
      @engine = engine
      @catalog = catalog
    end

    # @param value [Hash, String] as the request has it
    # @param path [String] where it stands
    # @return [Profile::Engine]
    # @raise [InvalidInput]
    def engine(value, path)
      return @engine if @engine
      return Profile::Engine.build(value, path: path) if value.is_a?(Hash)

      named(value, path, "engine") { |hash| Profile::Engine.build(hash) }
    end

    # @return [Parts::Catalog, nil]
    # @raise [InvalidInput]
    def catalog(value, path)
      return @catalog if @catalog || value.nil?
      return Parts::Catalog.build(value, path: path) if value.is_a?(Hash)

      named(value, path, "catalog") { |hash| Parts::Catalog.build(hash) }
    end

    private

    # What a name stands for; here no names are known.
    def named(_name, path, _kind)
      message = "must be an inline object here; a path works only with bin/estimate and bin/answer"
      raise InvalidInput.at(path, message)
    end
  end
end
