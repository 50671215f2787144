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
  const before = remembered(KEY);
  if (before !== null && (await hold(before, remembered(LIVES) === null ? 0 : ANSWER_MS))) return before;
  const id = freshUuid();
  try {
    sessionStorage.setItem(KEY, id);
  } catch {
    // Without it the tab has another name after a reload, and finds its draft as that of a tab that is gone.
  }
  // Nobody else can have a name that was just made.
  await hold(id, 0);
  return id;
}

/** What this tab remembers under a name; null where nothing is, or nothing can be. */
function remembered(key: string): string | null {
  try {
    return sessionStorage.getItem(key);
  } catch {
    return null;
  }
}

/** Takes a name for as long as this tab lives; false when another tab has it. `patience` as for `askedFor`. */
function hold(id: string, patience: number): Promise<boolean> {
  const locks = locksOf();
  if (!locks) return heldByWord(id, patience);
  return new Promise((resolve) => {
    void locks
      .request(`${KEY} ${id}`, { ifAvailable: true }, (lock) => {
        resolve(lock !== null);
        return lock === null ? undefined : new Promise<void>(() => undefined);
      })
      .catch(() => resolve(true));
  });
}

/** Stands beside the name for as long as its tab lives, where there are no locks. */
const LIVES = `${KEY}.lives`;

/**
 * Without locks a tab that goes away wipes its sign, so a name without one is free: after a reload nobody is asked. A
 * sign that still stands was copied from a tab that lives, or left by one that was killed: then the others are asked.
 */
function heldByWord(id: string, patience: number): Promise<boolean> {
  setSign(true);
  addEventListener('pagehide', () => setSign(false));
  addEventListener('pageshow', () => setSign(true));
  return askedFor(id, patience);
}

function setSign(lives: boolean): void {
  try {
    if (lives) sessionStorage.setItem(LIVES, '1');
    else sessionStorage.removeItem(LIVES);
  } catch {
    // What cannot be remembered is not copied into another tab either.
  }
}

/** So long other tabs have to say that a name is theirs, in milliseconds: one that is busy answers late. */
const ANSWER_MS = 3000;

interface Asked {
  readonly id: string;
  readonly from: string;
  readonly isTaken: boolean;
}

/**
 * Without locks the other tabs are asked, and each answers for as long as it lives. Of two that ask at once the lower
 * mark has it. They have `patience` milliseconds to answer.
 */
function askedFor(id: string, patience: number): Promise<boolean> {
  if (typeof BroadcastChannel === 'undefined') return Promise.resolve(true);
  const channel = new BroadcastChannel(KEY);
  const from = freshUuid();
  return new Promise((resolve) => {
    let has = false;
    const yields = (): void => {
      channel.close();
      resolve(false);
    };
    channel.onmessage = ({ data }: MessageEvent<unknown>) => {
      if (!isAsked(data) || data.id !== id || data.from === from) return;
      if (data.isTaken || (!has && data.from < from)) {
        if (!has) yields();
      } else channel.postMessage({ id, from, isTaken: true } satisfies Asked);
    };
    channel.postMessage({ id, from, isTaken: false } satisfies Asked);
    setTimeout(() => {
      has = true;
      resolve(true);
    }, patience);
  });
}

function isAsked(data: unknown): data is Asked {
  return typeof data === 'object' && data !== null && 'id' in data && 'from' in data && 'isTaken' in data;
}

/** Over plain http there are none. */
function locksOf(): LockManager | null {
  return (navigator as { locks?: LockManager }).locks ?? null;
}
