import type { Page } from '@playwright/test';

/** What is struck: seconds, note of the pad, force. */
export type Note = readonly [seconds: number, note: number, force: number];
const [KICK, SNARE, HAT] = [36, 38, 42];

export const NET = 'R! L R R K L! R K';
export const ROPE = 'R! R L L K R! L K R L! R! L R R K K';
export const OWN = 'R! K K L! K K R! K K L! K K R! L! R! L!';

/** A pad that plays what it is handed, at the times it is handed, as if it had been struck then. */
export async function standInPad(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const input = { name: 'Stand-in pad', state: 'connected', onmidimessage: null as ((e: unknown) => void) | null };
    const access = { inputs: new Map([['1', input]]), onstatechange: null as (() => void) | null };
    Object.assign(navigator, { requestMIDIAccess: () => Promise.resolve(access) });
    Object.assign(window, {
      playPad: (notes: readonly (readonly [number, number, number])[], from: number | null) => {
        const zero = from === null ? performance.now() : 1000 * from;
        for (const [seconds, note, force] of notes)
          input.onmidimessage?.({ data: new Uint8Array([0x99, note, force]), timeStamp: zero + 1000 * seconds });
      },
      unplug: () => {
        input.state = 'disconnected';
        access.onstatechange?.();
      },
    });
  });
}

/** The hits of a text from a 16th on, with some milliseconds of scatter that are the same every time. */
function hits(text: string, from: number, slot: number): Note[] {
  return text.split(' ').flatMap((t, i): Note[] => {
    if (t === '-') return [];
    const seconds = (from + i) * slot + 0.004 * Math.sin(7 * (from + i));
    return [[seconds, t === 'K' ? KICK : SNARE, t.endsWith('!') ? 112 : 66]];
  });
}

/** Bars of time with phrases at some bars: what is played there stands in their place. */
export function sitting(
  bars: number,
  bpm: number,
  at: Readonly<Record<number, readonly [text: string, from: number]>>,
): Note[] {
  const slot = 15 / bpm;
  const own = Object.entries(at).map(([bar, [text, from]]) => ({ text, first: (Number(bar) - 1) * 16 + from }));
  const busy = (i: number): boolean => own.some((o) => i >= o.first && i < o.first + o.text.split(' ').length);
  const time = Array.from({ length: bars * 16 }, (_, i): Note[] => {
    if (busy(i)) return [];
    const at16 = i % 16;
    const seconds = i * slot + 0.004 * Math.cos(5 * i);
    const all: Note[] = [];
    if (at16 % 2 === 0) all.push([seconds, HAT, 64]);
    if (at16 === 4 || at16 === 12) all.push([seconds + 0.002, SNARE, 104]);
    if (at16 === 0 || at16 === 10) all.push([seconds + 0.001, KICK, 96]);
    return all;
  }).flat();
  return [...time, ...own.flatMap((o) => hits(o.text, o.first, slot))].sort((a, b) => a[0] - b[0]);
}

/** Plays notes behind a second of the page's clock; from now on where none is given. */
export const play = (page: Page, notes: readonly Note[], from: number | null = null): Promise<void> =>
  page.evaluate(
    ([all, zero]) => (window as unknown as { playPad(n: readonly Note[], z: number | null): void }).playPad(all, zero),
    [notes, from] as const,
  );
