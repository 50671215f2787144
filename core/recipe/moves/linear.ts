import { Type, type Static } from '@sinclair/typebox';
import { count, mod } from '../../base';
import { ticks } from '../../time';
import { isHand, LEVELS, type Stroke } from '../../stroke';
import { gracesOf, tidy, unisons, withGraces, type Pattern } from '../../pattern';
import { done, finding, type Move } from './move';

export const LINEAR_WAYS = ['hands', 'feet', 'later'] as const;
export type LinearWay = (typeof LINEAR_WAYS)[number];

export const LinearParams = Type.Object({
  /** What gives way where hands and feet fall together: the hands, the feet, or the feet to the next free slot. */
  give: Type.Unsafe<LinearWay>({ type: 'string', enum: [...LINEAR_WAYS] }),
});
type Params = Static<typeof LinearParams>;

const WAYS: Readonly<Record<LinearWay, string>> = {
  hands: 'the hands rest where a foot plays',
  feet: 'the feet rest where a hand plays',
  later: 'a foot under a hand goes to the next free slot',
};

/** One stroke of those that fall together and are of the same kind: the loudest, then the first limb. */
function loudest(strokes: readonly Stroke[]): Stroke | undefined {
  return [...strokes].sort((a, b) => LEVELS.indexOf(b.level) - LEVELS.indexOf(a.level))[0];
}

/** The next slot after a tick, going round, in which nothing is struck; null where there is none. */
function nextFree({ grid, length }: Pattern, at: number, taken: ReadonlySet<number>): number | null {
  const slots = Math.floor(length / grid);
  for (let n = 1; n < slots; n++) {
    const to = mod(Math.floor(at / grid) + n, slots) * grid;
    if (!isTaken(to, grid, taken)) return to;
  }
  return null;
}

function isTaken(slot: number, grid: number, taken: ReadonlySet<number>): boolean {
  for (const at of taken) if (at >= slot && at < slot + grid) return true;
  return false;
}

/** Make it linear: one limb at a time. */
export const linear: Move<'linear', Params> = {
  name: 'linear',
  title: 'Make it linear',
  hint: 'One limb at a time: the hands out where the kick plays, or the kick on the next free slot.',
  schema: LinearParams,
  whole: true,
  defaults: () => ({ give: 'hands' }),
  describe: ({ give }) => `Make it linear: ${WAYS[give]}`,
  apply: (pattern, { give }) => {
    const together = new Set<number>(unisons(pattern));
    const graced = withGraces(pattern).strokes;
    const split = graced.some((s) => isSplit(s));
    if (together.size === 0 && !split) return done(pattern, [finding('linear', 'note', 'It is linear already.')]);
    const taken = new Set(pattern.strokes.map((s): number => s.at));
    let lost = 0;
    const kept = new Map<number, Stroke[]>();
    const put = (s: Stroke, at: number): void => void kept.set(at, [...(kept.get(at) ?? []), { ...s, at: ticks(at) }]);
    const late: Stroke[] = [];
    graced.forEach((s, i) => {
      const own = pattern.strokes[i] ?? s;
      if (!together.has(s.at)) return put(own, s.at);
      const all = graced.filter((o) => o.at === s.at);
      const hands = all.filter((o) => isHand(o.limb));
      const feet = all.filter((o) => !isHand(o.limb));
      const stays = hands.length === 0 || (give === 'hands' && feet.length > 0) ? loudest(feet) : loudest(hands);
      if (s === stays) put(own, s.at);
      else if (give === 'later' && !isHand(s.limb)) late.push(own);
      else lost++;
    });
    for (const s of late) {
      const to = nextFree(pattern, s.at, taken);
      if (to === null) lost++;
      else {
        taken.add(to);
        put(s, to);
      }
    }
    const alone = tidy({ ...pattern, strokes: [...kept.values()].flat() });
    // Whose grace strokes they are follows from what is left.
    const told = withGraces(alone).strokes;
    return done(
      { ...alone, strokes: alone.strokes.map((s, i) => (isSplit(told[i] ?? s) ? plain(s) : s)) },
      lost > 0 ? [finding('cut', 'note', `${count(lost, 'stroke')} left out.`)] : [],
    );
  },
};

/** Whether the other hand plays grace strokes before a stroke: that is a unison, all but. */
function isSplit(stroke: Stroke): boolean {
  const graces = gracesOf(stroke);
  return graces !== null && graces.limb !== stroke.limb;
}

function plain({ ornament: _ornament, grace: _grace, ...stroke }: Stroke): Stroke {
  return stroke;
}
