# frozen_string_literal: true

require_relative "spec_helper"

RSpec.describe "the working copy", type: :feature do
  it "tells the second of two browsers, shows both versions, and keeps the chosen one" do
    sign_in
    id = made_quote("4-TRE-1M", [1])
    open_page(id)
    total
    Capybara.using_session(:other) do
      size(1280, 800)
      sign_in
      open_page(id)
      total
      press("3")
      total
    end
    press("5")
    expect(page).to have_css("[role=dialog]", text: "changed in another window")
    expect(page).to have_text("plug and coil, cylinders 1, 5")
    expect(page).to have_text("plug and coil, cylinders 1, 3")
    accessible
    click_button "Keep mine"
    total
    expect([1, 3, 5].map { |n| cylinder(n)["aria-pressed"] }).to eq(%w[true false true])
    stored = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{id}").last
    expect(stored["draft"]["content"]["scopes"][0]["cylinders"]).to eq([1, 5])
  end

  it "takes the other advisor's saved revision, or saves on top of it" do
    sign_in
    id = made_quote("4-TRE-1M", [1])
    open_page(id)
    total
    second = Client.as("second@merrow.example")
    start = second.call(:get, "/api/quotes/#{id}").last
    second.choose(start, [3])
    second.save(id)
    click_button "Save"
    expect(page).to have_css("[role=dialog]", text: "Wenna Strake saved revision 1")
    click_button "Keep mine"
    total
    click_button "Save"
    expect(page).to have_text("revision 2 saved")
    contents = TestServer.db[:quote_revisions].where(quote_id: id).order(:revision).select_map(:content)
    expect(contents.map { |c| c["scopes"][0]["cylinders"] }).to eq([[3], [1]])
  end

  it "never shows a figure that belongs to an older selection as if it were the new one" do
    sign_in
    open_page(made_quote("4-TRE-1M", []))
    page.execute_script(<<~JS)
      window.seen = [];
      const sum = () => document.querySelector("[data-testid=total]");
      new MutationObserver(() => {
        const box = sum();
        if (box && box.getAttribute("aria-busy") === "false") {
          const marks = [...document.querySelectorAll("button[aria-label^='Cylinder']")];
          const pressed = marks.filter((b) => b.getAttribute("aria-pressed") === "true");
          const chosen = pressed.map((b) => b.textContent).sort().join();
          window.seen.push([chosen, box.querySelector(".sum").textContent]);
        }
      }).observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true });
    JS
    press("1", "2", "3", "1", "5", "4", "2", "6")
    expect(page).to have_css("button[aria-label^='Cylinder 6,'][aria-pressed=true]")
    total
    seen = page.evaluate_script("window.seen").uniq
    expect(seen).not_to be_empty
    seen.each { |chosen, sum| expect([chosen, sum]).to eq([chosen, priced(chosen.split(",").map(&:to_i))]) }
  end

  def priced(cylinders)
    client = Client.as("advisor@merrow.example")
    money(client.choose(client.start_quote, cylinders).last["sheet"]["estimate"]["price"]["total_cents"])
  end

  it "keeps working while the server is away, says so, and catches up" do
    sign_in
    id = made_quote("4-TRE-1M", [5])
    open_page(id)
    before = total
    ink = color_of_total
    offline(true)
    press("3")
    expect(page).to have_text("The server does not answer")
    expect(page).to have_css("[data-testid=total][aria-busy=true]", text: before)
    expect(page).to have_text("Recomputing…")
    expect(color_of_total).not_to eq(ink)
    offline(false)
    expect(page).to have_no_text("The server does not answer")
    expect(total).not_to eq(before)
    expect(color_of_total).to eq(ink)
    expect(page).to have_no_text("Recomputing…")
    stored = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{id}").last
    expect(stored["draft"]["content"]["scopes"][0]["cylinders"]).to eq([5, 3])
  end

  describe "whose total is there before the rest of the page" do
    # The next answer to a change gives its first line alone, until it is let on or cut off.
    def hold_the_rest
      page.execute_script(<<~JS)
        const ask = window.fetch;
        window.fetch = async (request, ...rest) => {
          const answer = await ask(request, ...rest);
          if (!request.url.endsWith("/draft")) return answer;
          window.fetch = ask;
          const text = await answer.text();
          const end = text.indexOf("\\n") + 1;
          const bytes = (part) => new TextEncoder().encode(part);
          const start = (controller) => {
            controller.enqueue(bytes(text.slice(0, end)));
            window.letOn = () => { controller.enqueue(bytes(text.slice(end))); controller.close(); };
            window.cutOff = () => controller.error(new TypeError("network error"));
          };
          return new Response(new ReadableStream({ start }), { status: answer.status, headers: answer.headers });
        };
      JS
    end

    def begun(cylinders)
      sign_in
      @id = made_quote("4-TRE-1M", cylinders)
      open_page(@id)
      total
      @explained = find("section", text: "Down, work, and back up").text
      hold_the_rest
    end

    def stored = Client.as("advisor@merrow.example").call(:get, "/api/quotes/#{@id}").last

    it "shows it as the new one with its lines, the rest as on its way, and saves once that is there" do
      begun([1])
      press("4")
      both = priced([1, 4])
      expect(page).to have_css("[data-testid=total][aria-busy=false] .sum", text: both)
      expect(page).to have_css("aside", text: "2 ×")
      expect(page).to have_css("main [aria-busy=true]")
      expect(page).to have_text("Recomputing…")
      expect(find("section", text: "Down, work, and back up").text).to eq(@explained)
      press("s")
      expect(page).to have_no_text("revision 1 saved")
      page.execute_script("window.letOn()")
      expect(page).to have_text("revision 1 saved")
      expect(total).to eq(both)
      expect(page).to have_no_text("Recomputing…")
      expect(find("section", text: "Down, work, and back up").text).not_to eq(@explained)
      expect(money(stored["revisions"].first["total_cents"])).to eq(both)
    end

    it "asks again where the answer breaks off, and loses nothing" do
      begun([1])
      press("4")
      expect(page).to have_css("[data-testid=total][aria-busy=false] .sum", text: priced([1, 4]))
      page.execute_script("window.cutOff()")
      expect(page).to have_text("The server does not answer")
      expect(page).to have_no_text("The server does not answer")
      expect(total).to eq(priced([1, 4]))
      expect(stored["draft"]["content"]["scopes"][0]["cylinders"]).to eq([1, 4])
    end

    it "is an older one when more is chosen meanwhile, but never goes back" do
      begun([1])
      press("4")
      expect(page).to have_css("[data-testid=total][aria-busy=false] .sum", text: priced([1, 4]))
      press("5")
      expect(page).to have_css("[data-testid=total][aria-busy=true] .sum", text: priced([1, 4]))
      page.execute_script("window.letOn()")
      expect(total).to eq(priced([1, 4, 5]))
    end
  end

  def color_of_total =
    page.evaluate_script("getComputedStyle(document.querySelector('[data-testid=total] .sum')).color")

  def offline(away)
    page.driver.browser.execute_cdp("Network.enable")
    page.driver.browser.execute_cdp(
      "Network.emulateNetworkConditions",
      offline: away,
      latency: 0,
      downloadThroughput: -1,
      uploadThroughput: -1
    )
  end
end
