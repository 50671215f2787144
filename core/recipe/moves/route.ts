import { Type, type Static } from '@sinclair/typebox';
import { listed } from '../../base';
import { HAND_VOICES, isHand, SAME_HAND, VOICE, type Voice } from '../../stroke';
import { gracesOf } from '../../pattern';
import { chooses, select, SelectionSchema, selectionWords } from '../../selection';
import { choseNothing, done, type Move } from './move';

const voice = Type.Unsafe<Voice>({ type: 'string', enum: [...HAND_VOICES] });
export const RouteParams = Type.Object({
  select: SelectionSchema,
  /** Where each hand strikes at each stop. */
  stations: Type.Array(Type.Object({ right: voice, left: voice }), { minItems: 1, maxItems: 16 }),
  /** Stations in the order they are visited, from 1; empty for one after the other. */
  order: Type.Array(Type.Integer({ minimum: 1, maximum: 16 }), { maxItems: 64 }),
  /** Strokes to a stop, taken in turn. */
  sizes: Type.Array(Type.Integer({ minimum: 1, maximum: 64 }), { minItems: 1, maxItems: 64 }),
  /** Strokes of one hand in a row stay together: the sizes count changes of hand. Absent: they count strokes. */
  by: Type.Optional(Type.Literal('hand')),
});
type Params = Static<typeof RouteParams>;

/** For the n-th stroke of a route, from 0: which stop it falls on. */
function stopOf(n: number, sizes: readonly number[]): number {
  const round = sizes.reduce((a, b) => a + b, 0);
  let left = n % round;
  let stop = Math.floor(n / round) * sizes.length;
  for (const size of sizes) {
    if (left < size) return stop;
    left -= size;
    stop++;
  }
  return stop;
}

function stationName({ right, left }: Params['stations'][number]): string {
  return right === left ? VOICE[right].name : `${VOICE[right].name} with ${VOICE[left].name}`;
}

/** Moments of the route as the stops count them: each for itself, or those of one hand in a row as one. */
function turnsOf(moments: readonly number[], limbsAt: (at: number) => string, by: Params['by']): Map<number, number> {
  let turn = -1;
  let last = '';
  return new Map(
    moments.map((at) => {
      const limbs = limbsAt(at);
      if (by !== 'hand' || limbs !== last) turn++;
      last = limbs;
      return [at, turn];
    }),
  );
}

/** Travel round the kit in groups of three, two, one or any list. */
export const route: Move<'route', Params> = {
  name: 'route',
  title: 'Move round the kit',
  hint: 'Down the toms in threes, or 3, 3, 2.',
  schema: RouteParams,
  defaults: () => ({
    select: chooses({ limbs: ['R', 'L'] }),
    stations: (['snare', 'high-tom', 'mid-tom', 'floor-tom'] as const).map((v) => ({ right: v, left: v })),
    order: [],
    sizes: [2],
  }),
  describe: ({ select: who, stations, order, sizes, by }, on) => {
    const visited =
      order.length > 0
        ? order.map((n) => stations[(n - 1) % stations.length]).flatMap((s) => (s ? [s] : []))
        : stations;
    const [size] = sizes;
    const changes = size === 1 ? 'change of hand' : 'changes of hand';
    const step =
      by === 'hand'
        ? `on at each ${sizes.length === 1 && size === 1 ? '' : `${listed(sizes.map(String))} `}${changes}`
        : `${listed(sizes.map(String))} at a time`;
    return `Move ${selectionWords(who, on)} round ${listed(visited.map(stationName))}, ${step}`;
  },
  apply: (pattern, { select: who, stations, order, sizes, by }) => {
    const chosen = select(pattern, who).filter((i) => isHand(pattern.strokes[i]?.limb ?? 'K'));
    if (chosen.length === 0) return choseNothing(pattern, `${selectionWords(who, pattern)} of the hands`);
    // Strokes of both hands at one tick travel together.
    const moments = [...new Set(chosen.map((i) => pattern.strokes[i]?.at ?? 0))];
    const limbsAt = (at: number): string =>
      chosen.flatMap((i) => (pattern.strokes[i]?.at === at ? [pattern.strokes[i].limb] : [])).join('');
    const stops = new Map([...turnsOf(moments, limbsAt, by)].map(([at, n]) => [at, stopOf(n, sizes)]));
    const visits = order.length > 0 ? order.map((n) => (n - 1) % stations.length) : stations.map((_, i) => i);
    const mine = new Set(chosen);
    const hands = new Set(chosen.map((i) => pattern.strokes[i]?.limb));
    return done({
      ...pattern,
      strokes: pattern.strokes.map((s, i) => {
        const station = mine.has(i) ? stations[visits[(stops.get(s.at) ?? 0) % visits.length] ?? 0] : undefined;
        if (!station) return s;
        const [own, other] = s.limb === 'R' ? [station.right, station.left] : [station.left, station.right];
        // A hand that goes round as well is at the same stop; one that stays keeps its grace strokes where it is.
        const goes = hands.size > 1 && s.grace !== SAME_HAND && gracesOf(s);
        return { ...s, voice: own, ...(goes ? { grace: other } : {}) };
      }),
    });
  },
};
