// A timer that goes on when the page's own timers are slowed down, as in a tab behind another one.
const EVERY_MS = 25;
setInterval(() => postMessage(0), EVERY_MS);
