import { describe, expect, it } from "vitest";
import {
  CANNOT_SAVE,
  CHANGED_MEANWHILE,
  type Command,
  type Event,
  next,
  same,
  stale,
  start,
  type State,
} from "./workingCopy";

type Copy = string;
interface Figures {
  of: Copy;
  price: number;
}
type S = State<Copy, Figures>;
type E = Event<Copy, Figures, string>;

const fresh = (): S => start<Copy, Figures>("a", 1, { of: "a", price: 1 });
const after = (state: S, ...events: E[]): [S, Command<Copy, Figures>[]] =>
  events.reduce<[S, Command<Copy, Figures>[]]>(
    ([now, commands], event) => {
      const [then, more] = next<Copy, Figures, string>(now, event);
      return [then, [...commands, ...more]];
    },
    [state, []],
  );
const stored = (of: Copy, version: number): E => ({ type: "stored", answer: { of, price: 1 }, version });
const away = { kind: "away" } as const;

describe("a working copy", () => {
  it("stores an edit, and the newest one when more come while a request is under way", () => {
    const [state, commands] = after(
      fresh(),
      { type: "edited", content: "b" },
      { type: "edited", content: "c" },
      { type: "edited", content: "d" },
      stored("b", 2),
      stored("d", 3),
    );
    expect(commands).toEqual([
      { do: "store", version: 1, content: "b", rebase: undefined },
      { do: "store", version: 2, content: "d", rebase: undefined },
    ]);
    expect([state.stored, state.version, stale(state)]).toEqual(["d", 3, false]);
  });

  it("never shows figures of an older content as if they were the new one's", () => {
    const [state] = after(fresh(), { type: "edited", content: "b" }, { type: "edited", content: "c" }, stored("b", 2));
    expect([state.answer.of, stale(state)]).toEqual(["a", true]);
  });

  it("saves after the store that is in flight, with the figures of what is on the screen", () => {
    const [, commands] = after(
      fresh(),
      { type: "edited", content: "b" },
      { type: "saveAsked", key: "k" },
      stored("b", 2),
    );
    expect(commands.at(-1)).toEqual({ do: "save", version: 2, answer: { of: "b", price: 1 }, key: "k" });
  });

  it("does not save what was changed after Save was pressed, and says so", () => {
    const [state, commands] = after(
      fresh(),
      { type: "edited", content: "b" },
      { type: "saveAsked", key: "k" },
      { type: "edited", content: "c" },
      stored("b", 2),
      stored("c", 3),
    );
    expect(commands.every((command) => command.do === "store")).toBe(true);
    expect([state.problem, state.wish]).toEqual([CHANGED_MEANWHILE, null]);
  });

  it("does not freeze the older copy when the server refused the newer one", () => {
    const refused: E = { type: "storeFailed", failure: { kind: "refused", message: "cylinder 9 does not exist" } };
    const [state, commands] = after(fresh(), { type: "edited", content: "bad" }, refused, {
      type: "saveAsked",
      key: "k",
    });
    expect(commands).toHaveLength(1);
    expect(state.problem).toBe(`${CANNOT_SAVE} cylinder 9 does not exist`);
    const [mended, more] = after(state, { type: "edited", content: "good" }, stored("good", 2), {
      type: "saveAsked",
      key: "k",
    });
    expect(more.map((command) => command.do)).toEqual(["store", "save"]);
    expect(mended.problem).toBe("");
  });

  it("takes a version of its own for what it is: its answer was lost on the way", () => {
    const clash: E = {
      type: "storeFailed",
      failure: { kind: "clash", clash: { kind: "draft", message: "", theirs: "b", version: 2 } },
    };
    const [state, commands] = after(fresh(), { type: "edited", content: "b" }, clash, stored("b", 3));
    expect(commands.map((command) => command.do)).toEqual(["store", "store"]);
    expect([state.clash, state.stored, state.answer.of]).toEqual([null, "b", "b"]);
  });

  it("meets a conflict while a save waits: shows both versions and saves nothing", () => {
    const clash = { kind: "draft" as const, message: "", theirs: "x", version: 7 };
    const [state, commands] = after(
      fresh(),
      { type: "edited", content: "b" },
      { type: "saveAsked", key: "k" },
      { type: "storeFailed", failure: { kind: "clash", clash } },
    );
    expect([state.clash, state.wish, commands.length]).toEqual([clash, null, 1]);
    expect(after(state, { type: "mineKept" })[1]).toEqual([
      { do: "store", version: 7, content: "b", rebase: undefined },
    ]);
    const [theirs, more] = after(state, { type: "theirsTaken" });
    expect([theirs.content, more]).toEqual(["x", [{ do: "store", version: 7, content: "x", rebase: undefined }]]);
  });

  it("puts the copy on top of a newer revision, or takes that", () => {
    const clash = { kind: "revision" as const, message: "", theirs: "theirs", revision: 4 };
    const failed: E[] = [
      { type: "saveAsked", key: "k" },
      { type: "saveFailed", failure: { kind: "clash", clash } },
    ];
    expect(after(fresh(), ...failed, { type: "mineKept" })[1].at(-1)).toEqual({
      do: "store",
      version: 1,
      content: "a",
      rebase: 4,
    });
    expect(after(fresh(), ...failed, { type: "theirsTaken" })[1].at(-1)).toEqual({
      do: "store",
      version: 1,
      content: "theirs",
      rebase: 4,
    });
  });

  it("shows both totals when the price changed meanwhile, fetches the new figures and waits for another press", () => {
    const change = { message: "", changed: ["house"], shown: 58_987, now: 282_265 };
    const [state, commands] = after(
      fresh(),
      { type: "saveAsked", key: "k" },
      { type: "saveFailed", failure: { kind: "price", change } },
      stored("a", 2),
    );
    expect(commands.map((command) => command.do)).toEqual(["save", "store"]);
    expect([state.priceChange, state.wish, stale(state)]).toEqual([change, null, false]);
    expect(after(state, { type: "saveAsked", key: "k2" })[1].map((command) => command.do)).toEqual(["save"]);
  });

  it("keeps everything while the server is away, and a save its key", () => {
    const [state, commands] = after(
      fresh(),
      { type: "saveAsked", key: "k" },
      { type: "saveFailed", failure: away },
      { type: "again" },
    );
    expect(
      commands.filter((command) => command.do === "save").map((command) => "key" in command && command.key),
    ).toEqual(["k", "k"]);
    expect(state.flight).toEqual({ kind: "save" });
  });

  it("sends what is left when the page is closed, unless it was refused or clashes", () => {
    expect(
      after(fresh(), { type: "edited", content: "b" }, { type: "storeFailed", failure: away }, { type: "left" })[1].at(
        -1,
      ),
    ).toEqual({ do: "store", version: 1, content: "b", rebase: undefined, last: true });
    expect(after(fresh(), { type: "left" })[1]).toEqual([]);
  });
});

/** A server as simple as can be, and every order of edits, answers, failures, presses and price changes. */
describe("whatever comes in whatever order", () => {
  const random = (seed: number) => () => {
    seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
    return seed / 2 ** 32;
  };

  class Simulated {
    draft = "a";
    version = 1;
    price = 1;
    saved: { content: Copy; price: number; key: string }[] = [];

    answer(command: Command<Copy, Figures>): E | null {
      if (command.do === "store") {
        if (command.content.includes("!")) return { type: "storeFailed", failure: { kind: "refused", message: "no" } };
        if (command.version !== this.version)
          return {
            type: "storeFailed",
            failure: {
              kind: "clash",
              clash: { kind: "draft", message: "", theirs: this.draft, version: this.version },
            },
          };
        this.draft = command.content;
        this.version += 1;
        return { type: "stored", answer: { of: command.content, price: this.price }, version: this.version };
      }
      if (command.do === "save") {
        const known = this.saved.find((save) => save.key === command.key);
        if (known) return { type: "saved", result: known.key };
        if (command.version !== this.version)
          return {
            type: "saveFailed",
            failure: {
              kind: "clash",
              clash: { kind: "draft", message: "", theirs: this.draft, version: this.version },
            },
          };
        if (command.answer.price !== this.price || command.answer.of !== this.draft)
          return {
            type: "saveFailed",
            failure: {
              kind: "price",
              change: { message: "", changed: ["house"], shown: command.answer.price, now: this.price },
            },
          };
        this.saved.push({ content: this.draft, price: this.price, key: command.key });
        return { type: "saved", result: command.key };
      }
      return null;
    }
  }

  it("saves what was pressed as it stood on the screen or not at all; in the end the server has the screen", () => {
    let saves = 0;
    for (let seed = 1; seed <= 1_500; seed += 1) {
      const chance = random(seed);
      const server = new Simulated();
      let state = fresh();
      let pending: Command<Copy, Figures>[] = [];
      let count = 0;
      const pressed = new Map<string, Copy>();
      const put = (event: E) => {
        const [then, commands] = next<Copy, Figures, string>(state, event);
        state = then;
        pending = [...pending, ...commands.filter((command) => command.do !== "retryLater")];
        expect(pending.length).toBeLessThanOrEqual(1);
      };
      const deliver = (lost: boolean) => {
        const [command] = pending;
        if (!command) return;
        pending = [];
        const answer = lost && chance() < 0.5 ? null : server.answer(command);
        if (!lost && answer) put(answer);
        else
          put(command.do === "store" ? { type: "storeFailed", failure: away } : { type: "saveFailed", failure: away });
      };
      for (let i = 0; i < 30; i += 1) {
        const dice = chance();
        if (dice < 0.35) put({ type: "edited", content: `${(count += 1)}${chance() < 0.15 ? "!" : ""}` });
        else if (dice < 0.5) {
          const key = `${seed}-${i}`;
          put({ type: "saveAsked", key });
          if (state.wish === key) pressed.set(key, state.content);
        } else if (dice < 0.8) deliver(chance() < 0.2);
        else if (dice < 0.88) put({ type: "again" });
        else if (dice < 0.92) server.price += 1;
        else if (dice < 0.96 && !state.clash) {
          server.draft = `elsewhere ${seed}`;
          server.version += 1;
        } else if (state.clash) put(chance() < 0.5 ? { type: "mineKept" } : { type: "theirsTaken" });
      }
      for (let i = 0; i < 12; i += 1) {
        if (state.clash) put({ type: "mineKept" });
        put({ type: "again" });
        deliver(false);
      }
      for (const save of server.saved) expect(save.content).toBe(pressed.get(save.key));
      saves += server.saved.length;
      // Nobody tells a page that is at rest of what was stored elsewhere: it learns so at its next request.
      if (!state.content.includes("!") && state.version === server.version)
        expect([server.draft, stale(state), state.answer.of]).toEqual([state.content, false, state.content]);
      expect(new Set(server.saved.map((save) => save.key)).size).toBe(server.saved.length);
    }
    expect(saves).toBeGreaterThan(500);
  });

  it("knows equal contents by what they hold", () =>
    expect([same({ a: 1 }, { a: 1 }), same({ a: 1 }, { a: 2 })]).toEqual([true, false]));
});
