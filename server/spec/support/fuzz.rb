# frozen_string_literal: true

# Values made blindly from a JSON Schema, some that fit and some that nearly do. The same seed makes the same values.
class Fuzz
  TEXTS = [
    "",
    " ",
    "x",
    "0",
    "-1",
    "1e309",
    "null",
    "%00",
    "\u0000",
    "\u202Eabc",
    "ä" * 300,
    "'; DROP TABLE shops; --",
    "<script>alert(1)</script>",
    "{link}",
    "../../etc/passwd",
    "9" * 40,
    "2026-02-31",
    "2026-12-01T25:61:61Z",
    "\u{1F527}",
    "AAAA",
    "a,b;c\n\"d"
  ].freeze
  NUMBERS = [0, 1, -1, 2**31, 2**63, -(2**63), 10**40, 0.1, -0.5, 1e300, 3.999999].freeze
  DEEPEST = 6

  def initialize(seed, schemas)
    @random = Random.new(seed)
    @schemas = schemas
  end

  # @return [Object]
  def value(schema, depth = 0)
    schema = @schemas.fetch(schema["$ref"].split("/").last) while schema["$ref"]
    return odd if depth > DEEPEST || once_in(12)
    return pick(schema["enum"]) if schema["enum"]
    return schema["const"] if schema.key?("const")

    branch = schema["anyOf"] || schema["oneOf"]
    branch ? value(pick(branch), depth + 1) : of_type(schema, depth)
  end

  # Something that fits no field in particular.
  def odd = pick([nil, true, false, [], {}, [[[]]], pick(TEXTS), pick(NUMBERS), { "a" => { "b" => nil } }])

  def text = pick(TEXTS)
  def pick(list) = list[@random.rand(list.size)]
  def once_in(count) = @random.rand(count).zero?

  private

  def of_type(schema, depth)
    case Array(schema["type"]).reject { |type| type == "null" && !once_in(3) }.first
    when "object"
      object(schema, depth)
    when "array"
      list(schema, depth)
    when "string"
      once_in(2) ? text : fitting(schema)
    when "integer", "number"
      once_in(3) ? pick(NUMBERS) : @random.rand(0..40)
    when "boolean"
      once_in(2)
    when "null"
      nil
    else
      odd
    end
  end

  def object(schema, depth)
    required = schema.fetch("required", [])
    made =
      schema
        .fetch("properties", {})
        .select { |name, _member| required.include?(name) ? !once_in(15) : once_in(2) }
        .to_h { |name, member| [name, value(member, depth + 1)] }
    extra = schema["additionalProperties"]
    made[text] = value(extra, depth + 1) if extra.is_a?(Hash)
    made["x"] = odd if once_in(20)
    made
  end

  def list(schema, depth)
    many = @random.rand(0..3) + schema.fetch("minItems", 0)
    Array.new(many) { value(schema.fetch("items", {}), depth + 1) }
  end

  def fitting(schema)
    return "2026-11-0#{@random.rand(1..9)}" if schema["pattern"].to_s.include?("\\d-")

    "word #{@random.rand(100)}"[0, schema.fetch("maxLength", 20)]
  end
end
