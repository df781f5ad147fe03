/** Why a job stands still, in the words of the bay. */
export const WHYS: [string, string][] = [
  ["parts", "waits for parts"],
  ["customer", "waits for the customer"],
  ["tool", "tool elsewhere"],
  ["other", "called away"],
];
