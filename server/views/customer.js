// Tells the shop that a person has looked: after the page was in view for a moment, never from a preview.
const look = () => {
  if (document.visibilityState !== "visible") return;
  setTimeout(() => navigator.sendBeacon(`${location.pathname}/seen`), 800);
  document.removeEventListener("visibilitychange", look);
};
document.addEventListener("visibilitychange", look);
look();
