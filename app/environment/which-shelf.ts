import { DEMO_DATABASE, OWN_DATABASE } from './database-names';

/** The demo shelf and the user's own are two databases that never touch. */
export type WhichShelf = 'mine' | 'demo';

const KEY = 'loop-shelf.which';

/**
 * The shelf this tab works on: as the address asks (`?shelf=demo`), else the one it worked on before it was loaded
 * anew, else the one that was asked for last in any tab. What another tab opens never changes what a reload of this one
 * shows.
 */
export function currentShelf(): WhichShelf {
  const asked = new URLSearchParams(location.search).get('shelf');
  try {
    if (asked === 'demo' || asked === 'mine') localStorage.setItem(KEY, asked);
    const which = (asked ?? sessionStorage.getItem(KEY) ?? localStorage.getItem(KEY)) === 'demo' ? 'demo' : 'mine';
    sessionStorage.setItem(KEY, which);
    return which;
  } catch {
    // Without storage the address alone decides.
    return asked === 'demo' ? 'demo' : 'mine';
  }
}

/** The name of this tab's database. */
export function databaseName(): string {
  return currentShelf() === 'demo' ? DEMO_DATABASE : OWN_DATABASE;
}

/** Opens the other shelf by loading the application anew. */
export function openShelf(which: WhichShelf): void {
  location.assign(`/?shelf=${which}`);
}
