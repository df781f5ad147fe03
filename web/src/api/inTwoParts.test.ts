import { describe, expect, it } from "vitest";
import { inTwoParts } from "./inTwoParts";

interface Answer {
  total: string;
  rest: number[];
}

/** A body that comes in these pieces, as bytes. */
function body(...pieces: Uint8Array[]): ReadableStream<Uint8Array> {
  return new ReadableStream({
    start(controller) {
      pieces.forEach((piece) => controller.enqueue(piece));
      controller.close();
    },
  });
}
const bytes = (text: string) => new TextEncoder().encode(text);

describe("an answer in two parts", () => {
  it("tells its first line once, before the rest is there", async () => {
    const told: unknown[] = [];
    let letOn = () => {};
    const held = new ReadableStream<Uint8Array>({
      start(controller) {
        controller.enqueue(bytes('{"total":"12.00"\n'));
        letOn = () => {
          controller.enqueue(bytes(',"rest":[1,2]}'));
          controller.close();
        };
      },
    });
    const whole = inTwoParts<Answer>(held, (first) => {
      told.push(first);
      letOn();
    });
    expect(await whole).toEqual({ total: "12.00", rest: [1, 2] });
    expect(told).toEqual([{ total: "12.00" }]);
  });

  it("does not care where its bytes are cut, within a letter either", async () => {
    const all = bytes('{"total":"12,00 €"\n,"rest":[3]}');
    for (let cut = 1; cut < all.length; cut += 1) {
      const told: unknown[] = [];
      const whole = await inTwoParts<Answer>(body(all.slice(0, cut), all.slice(cut)), (first) => told.push(first));
      expect(whole).toEqual({ total: "12,00 €", rest: [3] });
      expect(told).toEqual([{ total: "12,00 €" }]);
    }
  });

  it("fails where it is cut off", async () => {
    await expect(inTwoParts<Answer>(body(bytes('{"total":"12.00"\n')), () => undefined)).rejects.toThrow();
  });
});
