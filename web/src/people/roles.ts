/** What people may be in a shop, with what that lets them do. */
export const ROLES = [
  { id: "owner", text: "owner" },
  { id: "advisor", text: "advisor" },
  { id: "technician", text: "technician" },
];

export const MAY: Record<string, string> = {
  owner: "quotes, prices, engines, house rules, people",
  advisor: "quotes and cars; sees prices, engines and rules",
  technician: "sees quotes, cars and engines; changes nothing",
};
