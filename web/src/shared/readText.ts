/** A file's text, or what is wrong with the file in words that say what to do. */
export async function readText(
  file: File,
  largest: number,
  usual: string,
): Promise<{ text?: string; unread?: string }> {
  if (file.size > largest) return { unread: `${file.name} is larger than ${largest / 1_000_000} MB. ${usual}` };
  try {
    return { text: new TextDecoder("utf-8", { fatal: true }).decode(await file.arrayBuffer()) };
  } catch {
    return { unread: `${file.name} is not UTF-8 text.` };
  }
}
