import { describe, expect, it } from "vitest";
import { changing, type History, NOTHING, redone, undone } from "./history";

/** Random edits, undos and redos against a plain list of all that was ever on the page. */
describe("undo and redo", () => {
  it("walk back to the first state and forth to the last, whatever was done between", () => {
    let seed = 7;
    const random = (n: number) => {
      seed = (seed * 1103515245 + 12345) % 2147483648;
      return seed % n;
    };
    for (let run = 0; run < 50; run++) {
      let history: History<number> = NOTHING;
      let now = 0;
      let line = [0];
      let place = 0;
      for (let step = 1; step < 60; step++) {
        const what = random(4);
        if (what < 2) {
          history = changing(history, now);
          now = step;
          line = [...line.slice(0, place + 1), step];
          place += 1;
        } else {
          const moved = what === 2 ? undone(history, now) : redone(history, now);
          const possible = what === 2 ? place > 0 : place < line.length - 1;
          expect(moved !== null).toBe(possible);
          if (!moved) continue;
          [history, now] = moved;
          place += what === 2 ? -1 : 1;
        }
        expect(now).toBe(line[place]);
      }
    }
  });

  it("undoes in one what was typed in one go", () => {
    let history: History<string> = NOTHING;
    history = changing(history, "", "name");
    history = changing(history, "U", "name");
    history = changing(history, "Up", "name");
    expect(undone(history, "Upp")?.[1]).toBe("");
    history = changing(history, "Upp", "minutes");
    expect(undone(history, "Upp 4")?.[1]).toBe("Upp");
  });
});
