/** A setting as people read it: money as money, lists with slashes, groups with their names. */
export function inWords(value: unknown, name: string, money: (cents: number) => string): string {
  if (value === null || value === undefined) return "none";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number") return name.includes("cents") ? money(value) : String(value);
  if (Array.isArray(value)) return value.length === 0 ? "none" : value.map((item) => inWords(item, name, money)).join(value.every((item) => typeof item !== "object") ? " / " : "; ");
  if (typeof value === "object")
    return Object.entries(value)
      .map(([key, inner]) => `${key.replaceAll("_cents", "").replaceAll(/[_-]/g, " ")} ${inWords(inner, key, money)}`)
      .join(", ");
  return String(value);
}
