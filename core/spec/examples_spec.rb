# frozen_string_literal: true

require_relative "spec_helper"
require "tmpdir"

# The worked examples of every format, figure by figure.
RSpec.describe "formats/examples" do
  folder = File.expand_path("../../formats/examples", __dir__)
  require_relative "../../bin/support/answer_command"

  # Every figure and word of what is expected, by where it stands.
  def leaves(value, path = "")
    case value
    when Hash
      value.flat_map { |key, inner| leaves(inner, "#{path}/#{key}") }
    when Array
      value.each_with_index.flat_map { |inner, i| leaves(inner, "#{path}/#{i}") }
    else
      [[path, value]]
    end
  end

  # What is searched for is as near as model.md section 12 asks for; all else is worked out.
  def precision(where) = where.end_with?("/frailty/variance") ? 1e-5 : 1e-9

  def at(answer, path) =
    path
      .split("/")
      .drop(1)
      .reduce(answer) { |value, key| value.is_a?(Array) ? value[key.to_i] : value&.fetch(key, nil) }

  Dir["#{folder}/*.request.json"].sort.each do |path|
    it "answers #{File.basename(path)} as it was worked out independently" do
      answer = NimbleLedger::Answers.to(JSON.parse(File.read(path)), documents: AnswerCommand::Files.new(folder))
      expected = JSON.parse(File.read(path.sub(".request.", ".answer.")))
      leaves(expected).each do |where, value|
        found = at(answer, where)
        fits =
          (
            if value.is_a?(Numeric)
              found.is_a?(Numeric) && (found - value).abs <= precision(where) * [1, value.abs].max
            else
              found == value
            end
          )
        expect([where, fits, found]).to eq([where, true, found]), "#{where}: #{found.inspect}, not #{value.inspect}"
      end
    end
  end
end
