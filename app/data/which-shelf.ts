import { DEMO_DATABASE, OWN_DATABASE } from './database-names';

/** The demo shelf and the user's own are two databases that never touch. */
export type WhichShelf = 'mine' | 'demo';

const KEY = 'loop-shelf.which';

/** The shelf this tab works on: as the address asks (`?shelf=demo`), else the one used last. */
export function currentShelf(): WhichShelf {
  const asked = new URLSearchParams(location.search).get('shelf');
  if (asked === 'demo' || asked === 'mine') {
    remember(asked);
    return asked;
  }
  try {
    return localStorage.getItem(KEY) === 'demo' ? 'demo' : 'mine';
  } catch {
    return 'mine';
  }
}

/** The name of this tab's database. */
export function databaseName(): string {
  return currentShelf() === 'demo' ? DEMO_DATABASE : OWN_DATABASE;
}

function remember(which: WhichShelf): void {
  try {
    localStorage.setItem(KEY, which);
  } catch {
    // Without local storage the address alone decides.
  }
}

/** Opens the other shelf by loading the application anew. */
export function openShelf(which: WhichShelf): void {
  location.assign(`/?shelf=${which}`);
}
