import { freshUuid } from './ids';

const KEY = 'loop-shelf.tab';

/**
 * Who this tab is. It keeps its name over a reload; two tabs never have the same, also when one was made by doubling
 * the other: each holds a lock of its name for as long as it lives.
 */
let own: Promise<string> | null = null;

export function thisTab(): Promise<string> {
  own ??= named();
  return own;
}

/** Names of tabs that live now, as far as the browser tells; null where it tells nothing. */
export async function livingTabs(): Promise<ReadonlySet<string> | null> {
  const locks = locksOf();
  if (!locks) return null;
  const { held = [] } = await locks.query();
  return new Set(held.flatMap((l) => (l.name?.startsWith(KEY) ? [l.name.slice(KEY.length + 1)] : [])));
}

async function named(): Promise<string> {
  const before = remembered();
  if (before !== null && (await hold(before))) return before;
  const id = freshUuid();
  try {
    sessionStorage.setItem(KEY, id);
  } catch {
    // Without it the tab has another name after a reload, and finds its draft as that of a tab that is gone.
  }
  await hold(id);
  return id;
}

function remembered(): string | null {
  try {
    return sessionStorage.getItem(KEY);
  } catch {
    return null;
  }
}

/** Takes the lock of a name for as long as this tab lives; false when another tab holds it. */
function hold(id: string): Promise<boolean> {
  const locks = locksOf();
  if (!locks) return Promise.resolve(true);
  return new Promise((resolve) => {
    void locks
      .request(`${KEY} ${id}`, { ifAvailable: true }, (lock) => {
        resolve(lock !== null);
        return lock === null ? undefined : new Promise<void>(() => undefined);
      })
      .catch(() => resolve(true));
  });
}

/** Over plain http there are none. */
function locksOf(): LockManager | null {
  return (navigator as { locks?: LockManager }).locks ?? null;
}
