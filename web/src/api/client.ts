import createClient from "openapi-fetch";
import type { components, paths } from "./contract.gen";
import { inTwoParts } from "./inTwoParts";
import { mended } from "./sessionOver";

type Schemas = components["schemas"];
export type Session = Schemas["Session"];
export type Vehicle = Schemas["Vehicle"];
export type Engine = Schemas["Engine"];
export type BillPage = Schemas["BillPage"];
export type DayPage = Schemas["DayPage"];
export type DayJob = DayPage["jobs"][number];
export type DayPreview = Schemas["DayPreview"];
export type WhenPage = Schemas["WhenPage"];
export type Calendar = Schemas["Calendar"];
export type CalendarImport = Schemas["CalendarImport"];
export type CarFile = Schemas["CarFile"];
export type QuoteCard = Schemas["QuoteCard"];
export type QuotePage = Schemas["QuotePage"];
export type Priced = Schemas["Priced"];
/** What is owed for a scope, before everything that explains it. */
export type Balance = Schemas["Balance"];
export type Content = Schemas["Content"];
export type Scope = Content["scopes"][number];
export type Sheet = Schemas["Sheet"];
/** What else is nearly free while the job is open. */
export type Bundle = NonNullable<Sheet["while_open"]>[number];
export type Descent = Schemas["Descent"];
export type Layer = Sheet["layers"][number];
export type Option = NonNullable<Sheet["routes"]>[number]["options"][number];
export type EngineCard = Schemas["EngineList"]["engines"][number];
export type EngineProfile = Schemas["EngineProfile"];
export type EngineWithProfile = Schemas["EngineWithProfile"];
export type ImportReport = Schemas["ImportReport"];
export type House = Schemas["House"];
export type Prices = Schemas["Prices"];
export type PriceReport = Schemas["PriceReport"];
export type Estimate = Schemas["Estimate"];
export type Other = Schemas["Other"];
export type Ahead = Schemas["Ahead"];
export type Beside = Schemas["Beside"];
export type Resolved = Schemas["Resolved"];
export type Conflict = Schemas["Conflict"];
export type Saved = Schemas["Saved"];
export type PanelFigures = Schemas["PanelFigures"];
export type NewShop = Schemas["NewShop"];
export type Person = Schemas["People"]["people"][number];
export type Pattern = Schemas["Patterns"]["patterns"][number];
export type YesPage = Schemas["YesPage"];
export type Offer = Schemas["Offer"];
export type NewOffer = Schemas["NewOffer"];
export type OfferAnswer = Schemas["OfferAnswer"];
export type CounterPage = Schemas["Counter"];
export type GarageReport = Schemas["GarageReport"];
export type PracticeCar = Schemas["PracticeCar"];
export type PracticeEnd = Schemas["PracticeEnd"];
export type PracticeTest = Schemas["PracticeTests"]["tests"][number];
export type CarPage = Schemas["CarPage"];
export type Fitting = Schemas["Fitting"];
export type CustomerPage = Schemas["CustomerPage"];
export type Found = Schemas["Found"];
export type Finding = Schemas["Finding"];
export type BenchAsked = Omit<Schemas["BenchRequest"], "format" | "version">;
export type BenchAnswer = Schemas["BenchAnswer"];
export type BayJob = Schemas["BayJob"];
export type JobCard = Schemas["JobCard"];
export type CardPiece = Schemas["CardPiece"];
export type CardState = Schemas["CardState"];
export type CardSheet = Schemas["CardSheet"];
export type CardStanding = Schemas["CardStanding"];
export type Mark = Schemas["Mark"];
export type HandedIn = Schemas["HandedIn"];
export type ScanReport = Schemas["ScanReport"];
export type FrozenRevision = Schemas["FrozenRevision"];
export type WorkshopDraft = Schemas["WorkshopDraft"];
export type WorkshopLook = Schemas["WorkshopLook"];
export type WorkshopActed = Schemas["WorkshopActed"];
export type Act = Schemas["WorkshopAct"]["act"];
export type BeginDraft = Schemas["BeginDraft"];
export type NewSketch = Schemas["NewSketch"];
export type Comparison = Schemas["Comparison"];
export type ArchiveReport = Schemas["ArchiveReport"];
export type LedgerPage = Schemas["LedgerPage"];
export type TracePage = Schemas["TracePage"];
export type TraceSheet = Schemas["TraceSheet"];
export type TraceContent = Schemas["TraceContent"];
export type NewerEngine = NonNullable<Schemas["PanelFigures"]["newer"]>;

/** A refusal of the server, in the one error form. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly body: Conflict,
  ) {
    super(message);
  }
}

/** The server could not be reached at all. */
export class Away extends Error {}

let token = "";

export function setToken(csrf: string): void {
  token = csrf;
}

async function send(request: Request): Promise<Response> {
  if (request.method !== "GET") {
    request.headers.set("X-CSRF-Token", token);
    request.headers.set("Content-Type", "application/json");
  }
  try {
    return await fetch(request);
  } catch {
    throw new Away("The server cannot be reached. Check the connection; what you entered is kept.");
  }
}

/** Who is signed in by now, with the token that goes with it. */
async function renew(): Promise<boolean> {
  const fresh = await api.session();
  setToken(fresh.csrf);
  return fresh.account !== null;
}

const client = createClient<paths>({
  fetch: async (request: Request) => {
    const spare = request.clone();
    const reply = await send(request);
    return (await mended(request.url, reply, renew)) ? send(spare) : reply;
  },
});

interface Reply<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of a reply; throws Refused with the server's own words otherwise. */
async function unwrap<T>(reply: Promise<Reply<T>>): Promise<T> {
  const { data, error, response } = await reply;
  if (response.ok && data !== undefined) return data;
  const body = error as Conflict | undefined;
  if (body?.error) throw new Refused(response.status, body.error.code, body.error.message, body);
  throw new Away(`The server answered ${response.status}. Try again in a moment.`);
}

/** The data of a reply that comes in two parts. */
async function whole<T>(
  reply: Promise<Reply<ReadableStream<Uint8Array> | null>>,
  atOnce: (first: Partial<T>) => void,
): Promise<T> {
  const body = await unwrap(reply);
  try {
    if (body) return await inTwoParts<T>(body, atOnce);
  } catch {
    // told below
  }
  throw new Away("The answer broke off. What you entered is kept.");
}

export const api = {
  session: () => unwrap(client.GET("/api/session")),
  signIn: (email: string, password: string) => unwrap(client.POST("/api/account/login", { body: { email, password } })),
  openShop: (body: NewShop) => unwrap(client.POST("/api/setup", { body })),
  keepShop: (body: Schemas["ShopDetails"]) => unwrap(client.PUT("/api/shop", { body })),
  people: () => unwrap(client.GET("/api/people")),
  changePerson: (id: string, body: Schemas["ChangePerson"]) =>
    unwrap(client.PUT("/api/people/{id}", { params: { path: { id } }, body })),
  invite: (body: Schemas["NewInvitation"]) => unwrap(client.POST("/api/people/invitations", { body })),
  withdrawInvitation: (id: string) =>
    unwrap(client.DELETE("/api/people/invitations/{id}", { params: { path: { id } } })),
  invitation: (token: string) => unwrap(client.POST("/api/join/look", { body: { token } })),
  join: (body: Schemas["Join"]) => unwrap(client.POST("/api/join", { body })),
  patterns: () => unwrap(client.GET("/api/patterns")),
  ledger: () => unwrap(client.GET("/api/ledger")),
  practice: (seed: string) => unwrap(client.GET("/api/practice/{seed}", { params: { path: { seed } } })),
  practiceTests: (seed: number, tests: PracticeTest[], targets: string[]) =>
    unwrap(
      client.POST("/api/practice/{seed}/tests", { params: { path: { seed: String(seed) } }, body: { tests, targets } }),
    ),
  practiceEnd: (seed: number, body: Schemas["PracticeDone"]) =>
    unwrap(client.POST("/api/practice/{seed}/end", { params: { path: { seed: String(seed) } }, body })),
  lesson: (body: Schemas["LedgerLesson"]) => unwrap(client.POST("/api/ledger/lessons", { body })),
  reportPast: (text: string) => unwrap(client.POST("/api/ledger/past/report", { body: { text } })),
  keepPast: (text: string, key: string) =>
    unwrap(client.POST("/api/ledger/past", { body: { text }, params: { header: { "Idempotency-Key": key } } })),
  ledgerJobs: (query: { engine?: string; technician?: string; month?: string }) =>
    unwrap(client.GET("/api/ledger/jobs", { params: { query } })),
  correctEntry: (id: string, body: Schemas["CorrectEntry"]) =>
    unwrap(client.POST("/api/ledger/entries/{id}/corrections", { params: { path: { id } }, body })),
  trace: (id: string) => unwrap(client.GET("/api/quotes/{id}/trace", { params: { path: { id } } })),
  storeTrace: (id: string, body: Schemas["StoreTrace"], keepalive = false) =>
    unwrap(client.PUT("/api/quotes/{id}/trace", { params: { path: { id } }, body, keepalive })),
  readCodes: (id: string) => unwrap(client.POST("/api/quotes/{id}/trace/codes", { params: { path: { id } } })),
  drafts: () => unwrap(client.GET("/api/workshop")),
  beginDraft: (body: BeginDraft, key: string) =>
    unwrap(client.POST("/api/workshop", { body, params: { header: { "Idempotency-Key": key } } })),
  draft: (code: string) => unwrap(client.GET("/api/workshop/{code}", { params: { path: { code } } })),
  /** A profile under the pencil travels as it was typed, faults and all. */
  storeEngine: (code: string, body: { version: number; profile: Schemas["EngineProfile"] }, keepalive = false) =>
    unwrap(
      client.PUT("/api/workshop/{code}", {
        params: { path: { code } },
        body: body as unknown as Schemas["StoreEngine"],
        keepalive,
      }),
    ),
  act: (body: { profile: Schemas["EngineProfile"]; act: Act }) =>
    unwrap(client.POST("/api/workshop/acts", { body: body as unknown as Schemas["WorkshopAct"] })),
  keepEngine: (code: string, body: Schemas["KeepEngine"], key: string) =>
    unwrap(
      client.POST("/api/workshop/{code}/revisions", {
        params: { path: { code }, header: { "Idempotency-Key": key } },
        body,
      }),
    ),
  dropDraft: (code: string) => unwrap(client.DELETE("/api/workshop/{code}", { params: { path: { code } } })),
  offeredLayers: (body: Schemas["HowBuilt"]) => unwrap(client.POST("/api/sketches/offered", { body })),
  sketch: (body: NewSketch, key: string) =>
    unwrap(client.POST("/api/sketches", { body, params: { header: { "Idempotency-Key": key } } })),
  compare: (query: { a: string; b: string; a_revision?: string; b_revision?: string }) =>
    unwrap(client.GET("/api/comparisons", { params: { query } })),
  reportLibrary: (archive: string) => unwrap(client.POST("/api/library/report", { body: { archive } })),
  keepLibrary: (body: Schemas["KeepArchive"], key: string) =>
    unwrap(client.POST("/api/library", { body, params: { header: { "Idempotency-Key": key } } })),
  signOut: (everywhere = false) =>
    unwrap(client.POST("/api/account/logout", { body: everywhere ? { global_logout: true } : {} })),
  changePassword: (password: string, fresh: string) =>
    unwrap(client.POST("/api/account/change-password", { body: { password, "new-password": fresh } })),
  renameCustomer: (id: string, body: Schemas["Customer"]) =>
    unwrap(client.PUT("/api/customers/{id}", { params: { path: { id } }, body })),
  /** A plug on the bench; what of it is asked decides what is answered. */
  bench: (asked: BenchAsked) =>
    unwrap(
      client.POST("/api/answers", {
        body: { format: "nimble-ledger.bench-request", version: 1, ...asked } as unknown as Schemas["AnyRequest"],
      }),
    ).then((answer) => answer as unknown as BenchAnswer),
  settleFollowUp: (id: string) => unwrap(client.POST("/api/follow-ups/{id}/settled", { params: { path: { id } } })),
  jobs: () => unwrap(client.GET("/api/jobs")),
  job: (id: string) => unwrap(client.GET("/api/jobs/{id}", { params: { path: { id } } })),
  giveJob: (id: string, body: Schemas["GiveJob"]) =>
    unwrap(client.PUT("/api/jobs/{id}", { params: { path: { id } }, body })),
  handIn: (id: string, device: string, marks: Mark[]) =>
    unwrap(
      client.POST("/api/jobs/{id}/marks", {
        params: { path: { id } },
        body: { device, marks: marks as unknown as Schemas["Marks"]["marks"] },
      }),
    ),
  scan: (id: string) => unwrap(client.POST("/api/jobs/{id}/scan", { params: { path: { id } } })),
  proposeFound: (id: string, mark: string) =>
    unwrap(client.POST("/api/jobs/{id}/proposals", { params: { path: { id } }, body: { mark } })),
  askWays: (id: string) => unwrap(client.POST("/api/jobs/{id}/ways-on", { params: { path: { id } } })),
  handOver: (id: string, odometer_km: number | null) =>
    unwrap(client.POST("/api/jobs/{id}/hand-over", { params: { path: { id } }, body: { odometer_km } })),
  keepPicture: (job: string, id: string, data: string) =>
    unwrap(client.POST("/api/jobs/{id}/pictures", { params: { path: { id: job } }, body: { id, data } })),
  bill: (job: string) => unwrap(client.GET("/api/jobs/{id}/bill", { params: { path: { id: job } } })),
  issueBill: (job: string, body: Schemas["IssueBill"], key: string) =>
    unwrap(
      client.POST("/api/jobs/{id}/bill", { params: { path: { id: job }, header: { "Idempotency-Key": key } }, body }),
    ),
  creditBill: (bill: string, reason: string, key: string) =>
    unwrap(
      client.POST("/api/bills/{id}/credit", {
        params: { path: { id: bill }, header: { "Idempotency-Key": key } },
        body: { reason },
      }),
    ),
  pay: (job: string, body: Schemas["NewPayment"]) =>
    unwrap(
      client.POST("/api/jobs/{id}/payments", {
        params: { path: { id: job }, header: { "Idempotency-Key": body.key } },
        body,
      }),
    ),
  day: () => unwrap(client.GET("/api/day")),
  dayMove: () => unwrap(client.GET("/api/day/move")),
  previewMove: (body: Schemas["PreviewMove"]) => unwrap(client.POST("/api/day/preview", { body })),
  keptPromises: () => unwrap(client.GET("/api/day/kept")),
  when: (quote: string, query: { wanted?: string; parts_at?: string }) =>
    unwrap(client.GET("/api/quotes/{id}/when", { params: { path: { id: quote }, query } })),
  bookTime: (body: Schemas["BookTime"], key: string) =>
    unwrap(client.POST("/api/bookings", { params: { header: { "Idempotency-Key": key } }, body })),
  moveTime: (id: string, body: Schemas["MoveTime"]) =>
    unwrap(client.PUT("/api/bookings/{id}", { params: { path: { id } }, body })),
  giveTimeBack: (id: string, version: number) =>
    unwrap(client.POST("/api/bookings/{id}/give-back", { params: { path: { id } }, body: { version } })),
  promiseCalled: (id: string, words: string) =>
    unwrap(client.POST("/api/bookings/{id}/called", { params: { path: { id } }, body: { words } })),
  calendar: () => unwrap(client.GET("/api/calendar")),
  holidays: (region?: string) =>
    unwrap(client.GET("/api/calendar/holidays", { params: { query: region ? { region } : {} } })),
  readCalendar: (text: string) => unwrap(client.POST("/api/calendar/import", { body: { text } })),
  calendarFeeds: () => unwrap(client.GET("/api/calendar/feeds")),
  makeFeed: (person: number | null, key: string) =>
    unwrap(client.POST("/api/calendar/feeds", { body: { person }, params: { header: { "Idempotency-Key": key } } })),
  withdrawFeed: (id: string) => unwrap(client.DELETE("/api/calendar/feeds/{id}", { params: { path: { id } } })),
  keepCalendar: (body: Schemas["KeepCalendar"]) => unwrap(client.PUT("/api/calendar", { body })),
  callOff: (job: string, reason: string) =>
    unwrap(client.POST("/api/jobs/{id}/call-off", { params: { path: { id: job } }, body: { reason } })),
  takeUp: (job: string) => unwrap(client.POST("/api/jobs/{id}/take-up", { params: { path: { id: job } } })),
  strikeYes: (offer: string, position: number, reason: string) =>
    unwrap(client.POST("/api/offers/{id}/strike", { params: { path: { id: offer } }, body: { position, reason } })),
  readNo: (offer: string) => unwrap(client.POST("/api/offers/{id}/no-read", { params: { path: { id: offer } } })),
  putAway: (quote: string) => unwrap(client.POST("/api/quotes/{id}/put-away", { params: { path: { id: quote } } })),
  bringBack: (quote: string) => unwrap(client.POST("/api/quotes/{id}/bring-back", { params: { path: { id: quote } } })),
  carFile: (id: string) => unwrap(client.GET("/api/vehicles/{id}/file", { params: { path: { id } } })),
  counter: () => unwrap(client.GET("/api/counter")),
  find: (search: string) => unwrap(client.GET("/api/find", { params: { query: { search } } })),
  yes: (id: string) => unwrap(client.GET("/api/quotes/{id}/yes", { params: { path: { id } } })),
  preview: (id: string) => unwrap(client.GET("/api/quotes/{id}/preview", { params: { path: { id } } })),
  offer: (id: string, body: NewOffer, key: string) =>
    unwrap(
      client.POST("/api/quotes/{id}/offers", {
        params: { path: { id }, header: { "Idempotency-Key": key } },
        body,
      }),
    ),
  answerOffer: (id: string, body: OfferAnswer, key: string) =>
    unwrap(
      client.POST("/api/offers/{id}/answers", {
        params: { path: { id }, header: { "Idempotency-Key": key } },
        body,
      }),
    ),
  revokeOffer: (id: string) => unwrap(client.POST("/api/offers/{id}/revocation", { params: { path: { id } } })),
  retryOffer: (id: string) => unwrap(client.POST("/api/offers/{id}/retry", { params: { path: { id } } })),
  settleQuestion: (id: string) => unwrap(client.POST("/api/questions/{id}/settled", { params: { path: { id } } })),
  reportGarage: (csv: string) => unwrap(client.POST("/api/garage/report", { body: { csv } })),
  keepGarage: (csv: string, key: string) =>
    unwrap(client.POST("/api/garage", { body: { csv }, params: { header: { "Idempotency-Key": key } } })),
  car: (id: string) => unwrap(client.GET("/api/vehicles/{id}", { params: { path: { id } } })),
  changeCar: (id: string, body: Schemas["ChangeCar"]) =>
    unwrap(client.PUT("/api/vehicles/{id}", { params: { path: { id } }, body })),
  readOdometer: (id: string, body: Schemas["NewReading"]) =>
    unwrap(client.POST("/api/vehicles/{id}/readings", { params: { path: { id } }, body })),
  noteFitting: (id: string, body: Schemas["NewFitting"]) =>
    unwrap(client.POST("/api/vehicles/{id}/fittings", { params: { path: { id } }, body })),
  withdrawFitting: (id: string, fitting: string) =>
    unwrap(client.POST("/api/vehicles/{id}/fittings/{fitting}/withdrawal", { params: { path: { id, fitting } } })),
  customer: (id: string) => unwrap(client.GET("/api/customers/{id}", { params: { path: { id } } })),
  mergeCustomer: (id: string, double: string) =>
    unwrap(client.POST("/api/customers/{id}/merge", { params: { path: { id } }, body: { double } })),
  vehicles: (search: string) => unwrap(client.GET("/api/vehicles", { params: { query: { search } } })),
  addVehicle: (body: Schemas["NewVehicle"]) => unwrap(client.POST("/api/vehicles", { body })),
  noteHistory: (id: string, body: Schemas["VehicleHistory"]) =>
    unwrap(client.PUT("/api/vehicles/{id}/history", { params: { path: { id } }, body })),
  noteFinding: (id: string, body: Schemas["NewFinding"]) =>
    unwrap(client.POST("/api/vehicles/{id}/findings", { params: { path: { id } }, body })),
  settleFinding: (id: string, finding: string) =>
    unwrap(client.POST("/api/vehicles/{id}/findings/{finding}/settled", { params: { path: { id, finding } } })),
  engines: (search = "") => unwrap(client.GET("/api/engines", { params: { query: { search } } })),
  engine: (code: string, work?: string, revision?: string) =>
    unwrap(client.GET("/api/engines/{code}", { params: { path: { code }, query: { work, revision } } })),
  reportEngine: (body: EngineProfile) => unwrap(client.POST("/api/engines/report", { body })),
  importEngine: (body: EngineProfile, key: string) =>
    unwrap(client.POST("/api/engines", { body, params: { header: { "Idempotency-Key": key } } })),
  house: () => unwrap(client.GET("/api/house")),
  keepEquipment: (equipment: string[], revision: number) =>
    unwrap(client.PUT("/api/house/equipment", { body: { equipment, revision } })),
  keepFigures: (body: Schemas["HouseFigures"]) => unwrap(client.PUT("/api/house/settings", { body })),
  prices: (search: string) => unwrap(client.GET("/api/prices", { params: { query: { search } } })),
  reportPrices: (body: Schemas["PriceRows"], progress = "") =>
    unwrap(client.POST("/api/prices/report", { body, headers: { "X-Progress": progress } })),
  progress: (id: string) => unwrap(client.GET("/api/progress/{id}", { params: { path: { id } } })),
  keepPrices: (body: Schemas["KeepPrices"], key: string) =>
    unwrap(
      client.POST("/api/prices", {
        body,
        params: { header: { "Idempotency-Key": key } },
        headers: { "X-Progress": key },
      }),
    ),
  renewEngine: (id: string) => unwrap(client.POST("/api/quotes/{id}/engine", { params: { path: { id } } })),
  quotes: (search: string) => unwrap(client.GET("/api/quotes", { params: { query: { search } } })),
  startQuote: (vehicle_id: string, key: string) =>
    unwrap(client.POST("/api/quotes", { body: { vehicle_id }, params: { header: { "Idempotency-Key": key } } })),
  quote: (id: string) => unwrap(client.GET("/api/quotes/{id}", { params: { path: { id } } })),
  /** @param atOnce takes what is owed, which is known before the rest of the page; null where nothing is */
  storeDraft: (
    id: string,
    body: Schemas["StoreDraft"],
    { keepalive = false, atOnce }: { keepalive?: boolean; atOnce?: (balance: Balance | null) => void } = {},
  ) =>
    whole<Priced>(
      client.PUT("/api/quotes/{id}/draft", { params: { path: { id } }, body, keepalive, parseAs: "stream" }),
      (first) => atOnce?.(first.balance ?? null),
    ),
  panel: (id: string, panel: "trouble" | "beside" | "newer-engine") =>
    unwrap(client.GET("/api/quotes/{id}/panels/{panel}", { params: { path: { id, panel } } })),
  save: (id: string, version: number, priced_with: Priced["priced_with"], key: string) =>
    unwrap(
      client.POST("/api/quotes/{id}/revisions", {
        params: { path: { id }, header: { "Idempotency-Key": key } },
        body: { version, priced_with },
      }),
    ),
  revision: (id: string, number: string) =>
    unwrap(client.GET("/api/quotes/{id}/revisions/{number}", { params: { path: { id, number } } })),
};
