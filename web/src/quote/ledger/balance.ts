import type { Balance, Sheet } from "../../api/client";

/** What is owed, as a page's figures have it; null where there is nothing to charge for. */
export function balanceOf(sheet: Sheet): Balance | null {
  const { estimate, title } = sheet;
  return estimate?.price ? { title, hours: estimate.hours.quoted, price: estimate.price } : null;
}
