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
    @stage.sign_in("advisor@merrow.example")
    picture("counter") { @stage.go("/", "Waiting for a yes") }
    yes
    quotes
    library
    @stage.go("/house", "two-post lift")
    click("Sign out")
    @stage.see("Sign in")
    @stage.sign_in("owner@merrow.example")
    picture("house") { @stage.go("/house", "two-post lift") }
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
    paper("quote-paper", "/api/quotes/#{rear}/print.pdf")
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

  def click(text) =
    @driver
      .find_elements(css: "button")
      .find { |button| button.text.include?(text) || button.attribute("textContent").include?(text) }
      .click

  # What waits for a yes, the customer's page, what was agreed, and the page to sign.
  def yes
    waiting = @stage.client.call(:get, "/api/counter").last["waiting"].find { |row| row["scopes"].size == 2 }
    offer = @stage.client.call(:get, "/api/quotes/#{waiting["quote_id"]}/yes").last["offers"].first
    picture("yes") { @stage.go("/quotes/#{waiting["quote_id"]}/yes", "Waiting for a yes") }
    paper("authorization", "/api/offers/#{offer["id"]}/authorization.pdf")
    agreed = @stage.client.call(:get, "/api/counter").last["agreed"].first
    picture("agreed") { @stage.go("/quotes/#{agreed["quote_id"]}/yes", "What was offered") }
    picture("customer", width: 390, height: 1180) { @stage.go(URI(offer["link"]).path, "What could happen") }
  end

  def paper(name, path)
    pdf = "/tmp/nimble-#{name}.pdf"
    File.binwrite(pdf, @stage.client.call(:get, path).last)
    system("pdftoppm", "-png", "-r", "80", "-singlefile", pdf, File.join(FOLDER, name), exception: true)
    puts name
  end
end

Stage.open { |stage| Screenshots.new(stage).take }
