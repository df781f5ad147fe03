/** Whether the address is an invitation's: its secret stands behind the #, which browsers send to nobody. */
export const invited = (): string | null =>
  window.location.pathname === "/join" ? window.location.hash.slice(1) || "none" : null;
