# frozen_string_literal: true

require_relative "stage"
require_relative "../../server/spec/support/started"

# The current picture of each main view, from the demo shop.
class Screenshots
  FOLDER = File.join(NimbleServer::ROOT, "docs/screenshots")

  def initialize(stage)
    @stage = stage
    @driver = stage.driver
  end

  def take
    FileUtils.mkdir_p(FOLDER)
    first_run
    picture("sign-in") { @stage.go("/") }
    @stage.sign_in("advisor@merrow.example")
    quotes
    picture("counter") { @stage.go("/", "Waiting for a yes") }
    library
    @stage.go("/house", "two-post lift")
    click("Sign out")
    @stage.see("Sign in")
    @stage.sign_in("owner@merrow.example")
    picture("house") { @stage.go("/house", "two-post lift") }
    picture("house-figure") { click("change Parts markup").then { @stage.see("As shipped") } }
  end

  private

  # A server with no shop, as bin/start --empty has it.
  def first_run
    empty = Started.new("--empty")
    picture("first-run") do
      @driver.navigate.to(empty.address)
      @stage.see("Open the ledger")
      fill("Name" => "Vane and Daughter", "Labor rate per hour, USD" => "139.50", "Tax rate, %" => "7.5")
    end
  ensure
    empty&.close
  end

  def fill(texts)
    texts.each do |label, text|
      @driver.find_element(xpath: "//label[normalize-space()='#{label}']/following-sibling::input").send_keys(text)
    end
  end

  def quotes
    rear = @stage.quote("4-TRE-1M", [5], save: true)
    stuck = @stage.quote("5-TOW-4I", (1..8).to_a, works: ["plug"], save: true)
    picture("quote-rear-bank") { @stage.open(rear) }
    picture("quote-rusty-night", chart: "night") { @stage.open(@stage.quote("1-COD-2H", [2, 4, 6])) }
    picture("quote-trouble-v8") { @stage.open(stuck).then { @stage.press("f") } }
    scopes
    picture("quote-flat-four") { @stage.open(@stage.quote("4-HIL-6M", [2, 4])).then { @stage.press("q") } }
    picture("why-the-hours") { @stage.open(rear).then { click("quoted: why?") } }
    picture("quote-tablet", width: 820, height: 1180) { @stage.open(rear) }
    paper(rear)
  end

  def scopes
    routes = @stage.quote("8-BUS-3M", [1, 3, 5], works: %w[plug wire])
    picture("quote-routes") { @stage.open(routes).then { @stage.press("x") } }
    picture("quote-phone", width: 390, height: 844) { @stage.open(routes) }
    picture("quote-side-by-side") { side_by_side }
  end

  def library
    picture("engines") { @stage.go("/engines", "AS04") }
    picture("engine") { @stage.go("/engines/IXO6", "What comes off") }
    picture("engine-import") { import_report }
    picture("prices") { @stage.go("/prices", "COI-80409") }
  end

  def picture(name, width: 1280, height: 800, chart: "day")
    Browser.resize(@driver, width, height)
    yield
    @driver.execute_script(
      "document.documentElement.dataset.chart = arguments[0]; document.activeElement?.blur()",
      chart
    )
    @stage.painted
    @driver.save_screenshot(File.join(FOLDER, "#{name}.png"))
    puts name
  end

  # One coil, its neighbors under the same opening, and everything.
  def side_by_side
    @stage.open(@stage.quote("4-TRE-1M", [5], works: ["coil"]))
    ["n", "1", "3", "n", "2", "4", "6", "p", "[", "="].each { |key| @stage.press(key) }
    @stage.see("Both days together")
    @stage.settled
  end

  # What an import would change, for a profile with two other figures and one step more.
  def import_report
    profile = JSON.parse(File.read(File.join(NimbleServer::ROOT, "demo/engines/jiv6.engine.json")))
    profile["plug"]["torque_nm"] = 23
    profile["steps"][2]["remove"] = [8, 12, 20]
    profile["steps"] << { "id" => "strut-brace", "label" => "Strut brace", "remove" => [2, 3, 5], "refit" => [2, 3, 5] }
    path = "/tmp/nimble-import.engine.json"
    File.write(path, JSON.generate(profile))
    @stage.go("/engines", "AS04")
    click("Import a profile")
    @driver.find_element(css: "input[type=file]").send_keys(path)
    @stage.see("It becomes revision 2")
  end

  def click(text) =
    @driver
      .find_elements(css: "button")
      .find { |button| button.text.include?(text) || button.attribute("textContent").include?(text) }
      .click

  def paper(id)
    pdf = @stage.client.call(:get, "/api/quotes/#{id}/print.pdf").last
    File.binwrite("/tmp/nimble-quote.pdf", pdf)
    system(
      "pdftoppm",
      "-png",
      "-r",
      "80",
      "-singlefile",
      "/tmp/nimble-quote.pdf",
      File.join(FOLDER, "quote-paper"),
      exception: true
    )
    puts "quote-paper"
  end
end

Stage.open { |stage| Screenshots.new(stage).take }
