/**
 * Whether a typed number stands as people of this locale write it: groups of three, one decimal mark. "9,5" where the
 * comma groups thousands is refused, not taken for 95.
 */
export function wellGrouped(text: string, locale: string): boolean {
  const parts = new Intl.NumberFormat(locale, { useGrouping: true }).formatToParts(-12_345_678.9);
  const mark = (type: string) => parts.find((part) => part.type === type)?.value ?? "";
  const [group, decimal] = [mark("group"), mark("decimal")].map((sign) => (/\s/.test(sign) ? "\\s" : `\\${sign}`));
  const written = new RegExp(`^[-−]?(\\d+|\\d{1,3}(${group}\\d{3})+)?(${decimal}\\d*)?$`);
  return written.test(text.trim());
}
