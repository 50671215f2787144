import type { Pattern } from '../../pattern';
import { slotsOf } from './ordered';
import type { Pick } from './pick';
import { countSaid, isWrong, restricted, stretchesOf, type Ways } from './stretches';

/** The places that are meant, struck or not, in ticks from the start; null where only strokes can be meant. */
export function places(pick: Pick, pattern: Pattern): Ways<readonly number[]> | null {
  const { and, except, ...rest } = pick;
  let found = own(rest, pattern);
  const others = [
    ...(and ? [{ pick: and, joins: true }] : []),
    ...(except ?? []).map((e) => ({ pick: e, joins: false })),
  ];
  for (const other of others) {
    if (found === null || isWrong(found)) return found;
    const there = places(other.pick, pattern);
    if (there === null || isWrong(there)) return there;
    const [at, more] = [found.ways[0] ?? [], there.ways[0] ?? []];
    const all = other.joins
      ? [...new Set([...at, ...more])].sort((a, b) => a - b)
      : at.filter((t) => !more.includes(t));
    found = { ways: [all] };
  }
  return found;
}

/** The same without what is joined to it or taken out of it. */
function own(pick: Pick, pattern: Pattern): Ways<readonly number[]> | null {
  const wrong = (why: string): Ways<readonly number[]> => ({ wrong: pick.said, why });
  if (pick.limb || pick.levels || pick.voices || pick.ornaments || pick.base) return null;
  // Whether what is named belongs to it is open.
  if (pick.until || pick.between) return null;
  const spans = restricted(pick, pattern);
  if ('why' in spans) return spans;
  const { grid } = pattern;
  if (pick.counts) {
    const all = new Set<number>();
    for (const c of pick.counts) {
      const whole = c.as === 'whole';
      const there = stretchesOf(pattern, c, whole ? 'beat' : 'count', pick.bars);
      const inside = there?.filter((s) => s.from >= 0 && spans.inside(s.from)) ?? [];
      if (inside.length === 0) return wrong(`There is no ${countSaid(c)} here.`);
      for (const s of inside) for (let t = s.from; t < (whole ? s.until : s.from + 1); t += grid) all.add(t);
    }
    return { ways: [[...all].sort((a, b) => a - b)] };
  }
  if (pick.order) {
    const slots = slotsOf({ ...pick, grid: pick.grid ?? grid }, pattern);
    if (slots === null) return null;
    const inside = slots.filter(spans.inside);
    return inside.length > 0 ? { ways: [inside] } : wrong('There are none here.');
  }
  if (!pick.bars && pick.half === undefined) return null;
  const all = Array.from({ length: Math.ceil(pattern.length / grid) }, (_, i) => i * grid);
  return { ways: [all.filter(spans.inside)] };
}
