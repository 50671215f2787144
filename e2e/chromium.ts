import { existsSync } from 'node:fs';

/** The browser that tests run in: the one that is told, else Debian’s, rather the one without a window of its own. */
export const CHROMIUM =
  [process.env['CHROMIUM'], '/usr/bin/chromium-headless-shell'].find((p) => p && existsSync(p)) ?? '/usr/bin/chromium';
