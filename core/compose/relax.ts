import type { Schools } from '../time';
import { wishWords, type Asked, type SlotWish } from './asked';
import { different, freeCells, linearCells } from './cells';
import { compose, slotWords, type Around } from './compose';

/** A smaller demand with which there is an answer: what is let go, and how many answers there are then. */
export interface Relaxation {
  readonly words: string;
  readonly asked: Asked;
  /** Answers, up to the most that are counted. */
  readonly many: number;
  /** Whether there are more than were counted. */
  readonly more: boolean;
}

/** So many answers are counted of each, and so many relaxations are shown. */
const COUNTED = 12;
const SHOWN = 6;
/** Demands that are let go two at a time are tried so often. */
const MOST_PAIRS = 60;

interface Step {
  readonly words: string;
  readonly to: (asked: Asked) => Asked;
}

/**
 * What to let go of where nothing answers: each is tried, and only those that give an answer come back, the smallest
 * steps first: one thing let go, else two. Empty where two are not enough either.
 */
export function relaxations(asked: Asked, around: Around, schools: Schools): readonly Relaxation[] {
  const steps = stepsOf(asked, schools);
  const tried = (words: string, next: Asked): readonly Relaxation[] => {
    if (around.stopped?.()) return [];
    const { answers, more } = compose({ ...next, many: COUNTED }, { ...around, found: () => undefined });
    return answers.length > 0 ? [{ words, asked: next, many: answers.length, more }] : [];
  };
  const one = steps.flatMap((s) => tried(s.words, s.to(asked)));
  if (one.length > 0) return one.slice(0, SHOWN);
  const pairs = steps.flatMap((a, i) => steps.slice(i + 1).map((b) => [a, b] as const));
  const two: Relaxation[] = [];
  for (const [a, b] of pairs.slice(0, MOST_PAIRS)) {
    two.push(...tried(`${a.words} and ${b.words}`, b.to(a.to(asked))));
    if (two.length >= SHOWN) break;
  }
  return two;
}

/** Every demand a little smaller, the smallest steps first. */
function stepsOf(asked: Asked, schools: Schools): readonly Step[] {
  const where = (slot: number): string => slotWords(asked, slot, schools);
  const without =
    (wish: SlotWish, other?: SlotWish): Step['to'] =>
    (a) => ({
      ...a,
      wishes: [...a.wishes.filter((w) => w !== wish), ...(other ? [other] : [])],
    });
  const moved = asked.wishes
    .filter((w) => w.must)
    .flatMap((w) =>
      [1, -1].flatMap((by): Step[] => {
        const slot = w.slot + by;
        if (slot < 0 || slot >= asked.slots || asked.wishes.some((o) => o.slot === slot)) return [];
        return [
          {
            words: `${wishWords(w.what)} on ${where(slot)} instead of ${where(w.slot)}`,
            to: without(w, { ...w, slot }),
          },
        ];
      }),
    );
  const dropped = asked.wishes.map((w): Step => ({
    words: w.must
      ? `without ${wishWords(w.what)} on ${where(w.slot)}`
      : `${wishWords(w.what)} allowed on ${where(w.slot)}`,
    to: without(w),
  }));
  const { longest, struck, tempo } = asked;
  const size = [2, 3, 4, 5, 6, 7].filter((n) => !asked.cells.some((c) => c.slots.length === n));
  return [
    ...(asked.cut ? [] : [{ words: 'the last cell cut off', to: (a: Asked): Asked => ({ ...a, cut: true }) }]),
    ...(longest.hand === null
      ? []
      : [
          {
            words: `${longest.hand + 1} in a row with one hand`,
            to: (a: Asked): Asked => ({ ...a, longest: { ...a.longest, hand: (a.longest.hand ?? 0) + 1 } }),
          },
        ]),
    ...(longest.foot === null
      ? []
      : [
          {
            words: `${longest.foot + 1} kicks in a row`,
            to: (a: Asked): Asked => ({ ...a, longest: { ...a.longest, foot: (a.longest.foot ?? 0) + 1 } }),
          },
        ]),
    ...moved,
    ...size.map((n): Step => ({
      words: `a cell of ${n} too`,
      to: (a) => ({ ...a, cells: different([...a.cells, ...linearCells(n, 'kick-last')]) }),
    })),
    ...(asked.lead === null ? [] : [{ words: 'either hand first', to: (a: Asked): Asked => ({ ...a, lead: null }) }]),
    ...(asked.end === null ? [] : [{ words: 'either hand last', to: (a: Asked): Asked => ({ ...a, end: null }) }]),
    ...(asked.unlike === 0
      ? []
      : [{ words: 'what is like your shelf too', to: (a: Asked): Asked => ({ ...a, unlike: 0 }) }]),
    ...(struck === null
      ? []
      : [{ words: 'as many strokes as it takes', to: (a: Asked): Asked => ({ ...a, struck: null }) }]),
    ...(tempo === null ? [] : slower(asked, tempo)),
    ...(asked.linear ? [{ words: 'hands and kick together', to: (a: Asked): Asked => ({ ...a, linear: false }) }] : []),
    ...dropped,
    {
      words: 'single strokes anywhere',
      to: (a) => ({ ...a, cells: different([...a.cells, ...freeCells(true, false)]) }),
    },
    ...[1, -1].flatMap((by): Step[] => {
      const slots = asked.slots + by;
      // What is wished of the last slot does not fit into fewer.
      if (slots < 1 || asked.wishes.some((w) => w.slot >= slots) || asked.line !== null) return [];
      return [{ words: `${slots} slots`, to: (a) => ({ ...a, slots }) }];
    }),
  ];
}

/** Tempos a tenth slower, down to two thirds. */
function slower(asked: Asked, tempo: number): readonly Step[] {
  return [0.9, 0.8, 2 / 3].map((share): Step => {
    const less = Math.max(20, Math.round(tempo * share));
    return { words: `${less} instead of ${asked.tempo ?? tempo}`, to: (a) => ({ ...a, tempo: less }) };
  });
}
