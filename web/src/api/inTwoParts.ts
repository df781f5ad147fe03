/**
 * Reads an answer whose first line goes out before the rest is worked out: closed with a brace it is an object of its
 * own, and the whole is one.
 * @param atOnce takes what the first line says, once it is there
 */
export async function inTwoParts<T>(body: ReadableStream<Uint8Array>, atOnce: (first: Partial<T>) => void): Promise<T> {
  const reader = body.getReader();
  const decoder = new TextDecoder();
  let text = "";
  let told = false;
  for (;;) {
    const { value, done } = await reader.read();
    if (done) break;
    text += decoder.decode(value, { stream: true });
    const end = told ? -1 : text.indexOf("\n");
    if (end < 0) continue;
    told = true;
    atOnce(JSON.parse(`${text.slice(0, end)}}`) as Partial<T>);
  }
  return JSON.parse(text) as T;
}
