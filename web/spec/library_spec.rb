# frozen_string_literal: true

require_relative "spec_helper"

# The engine library in the browser: search, one engine, import with a report, export, revisions; and the house's
# equipment.
RSpec.describe "the engine library", type: :feature do
  def file(name, text)
    FileUtils.mkdir_p("/tmp/nimble-uploads")
    File.join("/tmp/nimble-uploads", name).tap { |path| File.binwrite(path, text) }
  end

  def profile(code, &change)
    Client.as("owner@merrow.example").call(:get, "/api/engines/SK18").last["profile"]
      .merge("code" => code)
      .tap { |hash| change&.call(hash) }
  end

  def choose(path)
    find("input[type=file]", visible: :all).attach_file(path)
  end

  # The import dialog, by its key.
  def open_import
    expect(page).to have_css("tbody tr", minimum: 18)
    press("i")
    expect(page).to have_css("[role=dialog]", text: "Import an engine profile")
  end

  context "as an owner" do
    before do
      sign_in "owner@merrow.example"
      click_link "Engines"
      expect(page).to have_css("h1", text: "Engines")
    end

    it "finds an engine by what is known of it, and opens it" do
      expect(page).to have_css("tbody tr", minimum: 18)
      accessible
      press("/")
      find("input").send_keys("rear bank hire")
      expect(page).to have_text("No engine matches")
      find("input").send_keys([:control, "a"], "strap")
      expect(page).to have_css("tbody tr", count: 1)
      click_link "Sideways V6, fixed manifold"
      expect(page).to have_css("h1", text: "IXO6")
      expect(page).to have_text("The deepest: number 5")
      expect(page).to have_css(
        "span[role=img][aria-label^='Cylinder 5, rear bank, 1.6 hours if done alone, from beneath']"
      )
      expect(find("td:nth-child(2)", text: "Upper engine mounts").ancestor("tr")).to have_text(
        "Caution: Tilt: rated strap and block"
      )
      wires = "Wire 1, Wire 3 and Wire 5 at the rear"
      expect(find("td:nth-child(2)", text: wires).ancestor("tr")).to have_text("wire tears at the boot")
      accessible
      click_button "Wire"
      expect(page).to have_css("span[role=img][aria-label^='Cylinder 5, rear bank, 1.3 hours']")
    end

    it "imports in two steps: the report first, then a yes; a second file becomes revision 2" do
      open_import
      choose file("web1.engine.json", JSON.generate(profile("WEB1")))
      expect(page).to have_text("The library does not have it yet.")
      accessible
      expect(TestServer.db[:engine_profiles].where(code: "WEB1").count).to eq(0)
      click_button "Import as revision 1"
      expect(page).to have_css("h1", text: "WEB1")
      visit "/engines"
      open_import
      choose file("web1.engine.json", JSON.generate(profile("WEB1") { |hash| hash["plug"]["torque_nm"] = 19 }))
      expect(page).to have_text("It becomes revision 2.")
      expect(page).to have_css("[aria-label=Changes] li", text: "plug: torque nm 23 → 19")
      click_button "Import as revision 2"
      expect(page).to have_css("dd", text: "19 N·m")
      click_link "revision 1"
      expect(page).to have_text("This is revision 1; the newest is 2.")
      expect(page).to have_css("dd", text: "23 N·m")
      expect(page).to have_css("a[href='/api/engines/WEB1/export?revision=1']")
    end

    it "shows every fault of a file with its place, stores nothing, and takes the mended file" do
      click_button "Import a profile"
      choose file(
               "bad.engine.json",
               JSON.generate(
                 profile("WEB2") do |hash|
                   hash["steps"][1]["after"] = ["ghost"]
                   hash["steps"][0]["remove"] = [1, 2, 3]
                   hash["targets"][0]["cylinder"] = 9
                 end
               )
             )
      expect(page).to have_css("[role=alert] li", text: "/steps/1/after/0 names step ghost, which does not exist")
      expect(page).to have_css("[role=alert] li", text: "/targets/0/cylinder names cylinder 9, which does not exist")
      expect(page).to have_text("Nothing was stored.")
      accessible
      choose file("mended.engine.json", JSON.generate(profile("WEB2")))
      expect(page).to have_text("The library does not have it yet.")
      expect(page).to have_no_css("[role=alert]")
    end

    it "refuses what is no profile at all, in plain words" do
      click_button "Import a profile"
      choose file("text.json", "hello")
      expect(page).to have_css("[role=alert]", text: "text.json is not a JSON object")
      choose file("latin.json", "{\"name\": \"caf\xE9\"}".b)
      expect(page).to have_css("[role=alert]", text: "latin.json is not UTF-8 text")
      choose file("large.json", "[#{"1," * 2_100_000}1]")
      expect(page).to have_css("[role=alert]", text: "larger than 4 MB")
      choose file("list.json", "[]")
      expect(page).to have_css("[role=alert]", text: "list.json is not a JSON object")
    end

    it "shows labels with markup in them as text" do
      click_button "Import a profile"
      choose file(
               "script.json",
               JSON.generate(
                 profile("WEB3") { |hash| hash["steps"][0]["label"] = "<img src=x onerror=document.title='owned'>" }
               )
             )
      click_button "Import as revision 1"
      expect(page).to have_css("td", text: "<img src=x onerror=document.title='owned'>")
      expect(page.title).not_to eq("owned")
    end

    it "moves a quote to a newer revision only when asked" do
      client = Client.as("owner@merrow.example")
      client.call(:post, "/api/engines", profile("WEB4"))
      car =
        client.call(
          :post,
          "/api/vehicles",
          { plate: "EV WEB4", description: "Pellwick Breve", engine_code: "WEB4" }
        ).last
      quote = client.call(:post, "/api/quotes", { vehicle_id: car["id"] }).last
      client.choose(quote, [1])
      client.call(:post, "/api/engines", profile("WEB4") { |hash| hash["steps"][0]["remove"] = [40, 50, 60] })
      open_page(quote["quote"]["id"])
      before = total
      expect(page).to have_text("This quote is made with revision 1 of WEB4; the library has revision 2.")
      accessible
      click_button "Use revision 2"
      expect(page).to have_no_text("the library has revision 2")
      expect(total).not_to eq(before)
    end

    it "keeps the equipment under House, adds what is not in the list, and says what asks for it" do
      click_link "House"
      expect(page).to have_css("label", text: /here\s*strap and block\s*asked for by IXO6/)
      accessible
      fill_in "Something else the shop owns", with: "Engine support bar"
      click_button "Add"
      expect(page).to have_css("label", text: /here\s*engine support bar\s*no engine in the library asks for it/)
      find("label", text: "engine support bar").click
      expect(page).to have_no_css("label", text: "engine support bar")
      expect(find("tr", text: "Labor rate per hour")).to have_text("145.00")
    end
  end

  it "lets an advisor read the report and leaves importing and equipment to the owner" do
    sign_in
    visit "/engines"
    open_import
    choose file("web9.engine.json", JSON.generate(profile("WEB9")))
    expect(page).to have_text("The owner imports; this is the report to show them.")
    expect(page).to have_no_button("Import as revision 1")
    visit "/house"
    expect(page).to have_text("the owner keeps this list")
    expect(page).to have_css("label[data-disabled]", minimum: 5)
  end

  it "works on a phone and on a tablet" do
    sign_in
    [%w[/engines Engines], %w[/engines/YUX8 YUX8], ["/house", "House rules"]].each do |path, title|
      visit path
      expect(page).to have_css("h1", text: title)
      [[390, 844], [820, 1180]].each do |width, height|
        size(width, height)
        expect(overflow).to be <= 0
      end
    end
  end
end
