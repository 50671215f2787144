import { barTicks, beatTicks, parseCount } from '../time';
import { SHOW_LIMITS, type Cue, type Spot } from '../shelf';
import { countText, cueCounting, cueMeter, endOfCount, spotSpan } from './room';
import { Unread } from './unread';

/** A spot as it was typed: without its id and what was chosen for it. */
export type TypedSpot = Omit<Spot, 'id' | 'phrase' | 'pinned' | 'went'>;

/**
 * A spot as it is typed: `fill 8:3` (bar 8 from 3 on), `fill 8:3-4&`, `fill 8:3 until 4e`, `lick 16 whole`,
 * `groove 9-16`, and behind it `hits 3& 4`, `leave 4a`, `lands crash`. Throws what is wrong with it.
 */
export function parseSpot(text: string, cue: Pick<Cue, 'meter' | 'grid'>): TypedSpot {
  const word = text.toLowerCase().replace(/[–—]/g, '-').replace(/\s+/g, ' ');
  const found =
    /^(fill|lick|groove) (?:in )?(?:bars? )?(\d{1,3})(?::([^\s-]+))?(?: ?(-|to|until) ?(?:(\d{1,3}):)?([^\s]+))?((?: (?:whole|hits?|leave|lands?)\b.*)?)$/.exec(
      word,
    );
  if (!found) throw new Unread(`“${text.slice(0, 60)}” is not a spot. Write fill 8:3, fill 8:3-4& or fill 16 whole.`);
  const [, what = 'fill', barText = '1', fromText, sign, untilBar, untilText, rest = ''] = found;
  const bar = Number(barText);
  if (bar < 1 || bar > SHOW_LIMITS.bars)
    throw new Unread(`There is no bar ${bar}: bars go from 1 to ${SHOW_LIMITS.bars}.`);
  const long = barTicks(cueMeter(cue));
  const from = fromText === undefined ? 0 : tickOf(fromText, text, cue);
  const end = endOf({ bar, from: fromText, sign, untilBar, untilText }, text, cue);
  const length = end - ((bar - 1) * long + from);
  if (length <= 0) throw new Unread(`“${text.slice(0, 60)}” ends before it begins.`);
  return { what: what as TypedSpot['what'], bar, from, length, ...wishesOf(rest, { bar, from, length }, text, cue) };
}

function endOf(
  of: {
    readonly bar: number;
    readonly from: string | undefined;
    readonly sign: string | undefined;
    readonly untilBar: string | undefined;
    readonly untilText: string | undefined;
  },
  text: string,
  cue: Pick<Cue, 'meter' | 'grid'>,
): number {
  const long = barTicks(cueMeter(cue));
  const { bar, from, sign, untilBar, untilText } = of;
  if (sign === undefined || untilText === undefined) return bar * long;
  // Without a count before it, a number behind the dash is a bar: groove 9-16.
  if (from === undefined && untilBar === undefined) {
    if (!/^\d{1,3}$/.test(untilText)) throw new Unread(`“${untilText.slice(0, 20)}” is not a bar.`);
    const last = Number(untilText);
    return (sign === 'until' ? last - 1 : last) * long;
  }
  const base = (Number(untilBar ?? bar) - 1) * long;
  const at = base + tickOf(untilText, text, cue);
  return sign === 'until' ? at : endOfCount(at, cue);
}

function tickOf(count: string, text: string, cue: Pick<Cue, 'meter' | 'grid'>): number {
  const at = parseCount(count, cueCounting(cue));
  if (at === null || at < 0 || at >= barTicks(cueMeter(cue)))
    throw new Unread(`“${count.slice(0, 20)}” in “${text.slice(0, 40)}” is not a count of ${cue.meter}.`);
  return at;
}

function wishesOf(
  rest: string,
  spot: Pick<Spot, 'bar' | 'from' | 'length'>,
  text: string,
  cue: Pick<Cue, 'meter' | 'grid'>,
): Pick<TypedSpot, 'hits' | 'free' | 'lands'> {
  const hits: number[] = [];
  const free: number[] = [];
  let lands: TypedSpot['lands'] = 'any';
  for (const [, verb = '', given = ''] of rest.matchAll(
    /\b(whole|hits?|leave|lands?)\b((?: (?!whole|hit|leave|land)\S+)*)/g,
  )) {
    const counts = given
      .trim()
      .split(/\s+|\+/)
      .filter((c) => c !== '' && c !== 'on' && c !== 'the');
    if (verb === 'whole') {
      if (counts.length > 0)
        throw new Unread(`“${counts.join(' ').slice(0, 20)}” stands behind whole and is not understood.`);
    } else if (verb.startsWith('land')) {
      const [own] = counts;
      if (counts.length !== 1 || (own !== 'crash' && own !== 'kick'))
        throw new Unread(`A spot lands on crash or on kick, not on “${counts.join(' ').slice(0, 20)}”.`);
      lands = own;
    } else {
      if (counts.length === 0) throw new Unread(`Behind “${verb}” there are counts missing: ${verb} 3& 4.`);
      (verb === 'leave' ? free : hits).push(...counts.map((c) => inSpot(c, spot, text, cue)));
    }
  }
  const sorted = (list: readonly number[]): number[] =>
    [...new Set(list)].sort((a, b) => a - b).slice(0, SHOW_LIMITS.counts);
  return { hits: sorted(hits), free: sorted(free), lands };
}

/** A count of a spot behind its start: the first such count in it, or that of the bar it names. */
function inSpot(
  count: string,
  { bar, from, length }: Pick<Spot, 'bar' | 'from' | 'length'>,
  text: string,
  cue: Pick<Cue, 'meter' | 'grid'>,
): number {
  const long = barTicks(cueMeter(cue));
  const [, ownBar, own = count] = /^(?:(\d{1,3}):)?(.+)$/.exec(count) ?? [];
  const tick = tickOf(own, text, cue);
  const first = ownBar === undefined ? bar : Number(ownBar);
  for (let b = first; b <= (ownBar === undefined ? bar + Math.ceil((from + length) / long) : first); b++) {
    const at = (b - bar) * long + tick - from;
    if (at >= 0 && at < length) return at;
  }
  throw new Unread(`“${count.slice(0, 20)}” is not in “${text.slice(0, 40)}”.`);
}

/**
 * A spot as it is typed: what is read back as the same spot.
 * @example
 * spotText({ what: 'fill', bar: 8, from: 10080, length: 10080, hits: [], free: [], lands: 'any' }, { meter: '4/4', grid: null }) // => "fill 8:3"
 * spotText({ what: 'groove', bar: 9, from: 0, length: 161280, hits: [], free: [], lands: 'any' }, { meter: '4/4', grid: null }) // => "groove 9-16"
 */
export function spotText(spot: TypedSpot, cue: Pick<Cue, 'meter' | 'grid'>): string {
  const long = barTicks(cueMeter(cue));
  const { from, until } = spotSpan(spot, cue);
  const lastBar = Math.ceil(until / long);
  const counts = (list: readonly number[]): string =>
    list
      .map((t) => {
        const bar = Math.floor((from + t) / long) + 1;
        return `${bar === spot.bar ? '' : `${bar}:`}${countText((from + t) % long, cue)}`;
      })
      .join(' ');
  return [
    `${spot.what} ${placeText(spot, cue, { until, lastBar })}`,
    ...(spot.hits.length > 0 ? [`hits ${counts(spot.hits)}`] : []),
    ...(spot.free.length > 0 ? [`leave ${counts(spot.free)}`] : []),
    ...(spot.lands === 'any' ? [] : [`lands ${spot.lands}`]),
  ].join(' ');
}

function placeText(
  spot: TypedSpot,
  cue: Pick<Cue, 'meter' | 'grid'>,
  { until, lastBar }: { readonly until: number; readonly lastBar: number },
): string {
  const m = cueMeter(cue);
  const long = barTicks(m);
  const whole = until % long === 0;
  if (spot.from === 0 && whole) return lastBar === spot.bar ? `${spot.bar} whole` : `${spot.bar}-${lastBar}`;
  const start = `${spot.bar}:${countText(spot.from, cue)}`;
  if (whole && lastBar === spot.bar) return start;
  const bar = lastBar === spot.bar ? '' : `${lastBar}:`;
  if (until % beatTicks(m) === 0 || whole) {
    const beat = Math.ceil((until - (lastBar - 1) * long) / beatTicks(m));
    if (endOfCount((lastBar - 1) * long + (beat - 1) * beatTicks(m), cue) === until) return `${start}-${bar}${beat}`;
  }
  const untilBar = Math.floor(until / long) + 1;
  return `${start} until ${untilBar === spot.bar ? '' : `${untilBar}:`}${countText(until % long, cue)}`;
}

/**
 * The spots of a cue after they were typed anew: what stands where one stood keeps its phrase. `fresh` gives ids.
 */
export function keptSpots(before: readonly Spot[], typed: readonly TypedSpot[], fresh: () => string): readonly Spot[] {
  const left = [...before];
  const taken = (test: (s: Spot) => boolean): Spot | undefined => {
    const at = left.findIndex(test);
    return at < 0 ? undefined : left.splice(at, 1)[0];
  };
  // Those that stand where they stood are found first, so that a new one before them takes nothing from them.
  const same = typed.map((t) =>
    taken((s) => s.bar === t.bar && s.from === t.from && s.length === t.length && s.what === t.what),
  );
  return typed.map((t, i): Spot => {
    const own = same[i] ?? taken((s) => s.bar === t.bar && s.what === t.what && s.length === t.length);
    return { ...(own ?? { id: fresh(), phrase: null, pinned: false }), ...t };
  });
}
