import { barTicks, beatTicks, GRID, gridsOf, parseCount, parseGrid, USUAL_SCHOOLS, type Grid } from '../../time';
import { countingOf, type Pattern } from '../../pattern';
import { parseStrokeText } from '../../stroke';
import { NUMBER, numberOf } from './numbers';
import { offerOf, type Offer, type Reader } from './offer';

const AN = `(${NUMBER})`;

/** "kick after every 4", "a kick at the end", "add R L after 2". */
export const inserts: Reader = (text) => {
  const found = new RegExp(
    `^(?:add )?(.+?) (at the end|after every ${AN}|every ${AN}|after ${AN})(?: slots?| strokes?)?$`,
  ).exec(text);
  if (!found) return [];
  const [, what = '', where = ''] = found;
  const strokes = /^(?:an? )?kicks?$/.test(what) ? 'K' : /^(?:an? )?rests?$/.test(what) ? '-' : what.toUpperCase();
  if (!parseStrokeText(strokes).ok) return [];
  const slots = numberOf(found[3] ?? found[4] ?? found[5] ?? '');
  if (where === 'at the end') return [offerOf('insert', { text: strokes, where: { kind: 'end' } })];
  if (slots === null || slots < 1) return [];
  if (found[5] !== undefined) return [offerOf('insert', { text: strokes, where: { kind: 'after', slot: slots } })];
  return [offerOf('insert', { text: strokes, where: { kind: 'every', slots } })];
};

const CLOSE = /,? (?:and )?(?:close(?:d)? with|closing with) (.+)$/;

/**
 * "fill 2 bars end on 3&", "fill a bar from 3", "fill 2 bars close with R L R", "fill 2 bars with the hands swapped".
 */
export const fills: Reader = (text, pattern) => {
  const found = new RegExp(`^(?:fill|repeat it over|over) ${AN}( and a half)? (bars?|beats?)(.*)$`).exec(text);
  const n = found ? numberOf(found[1] ?? '') : null;
  if (!found || n === null || n < 1) return [];
  let rest = found[4] ?? '';
  const take = (what: RegExp): string | null => {
    const part = what.exec(rest);
    if (part) rest = rest.replace(part[0], '');
    return part ? (part[1] ?? part[0]) : null;
  };
  const strokes = take(CLOSE);
  const mirrored = take(/,? (?:with (?:the )?)?(?:hands )?(?:swapped|mirrored)(?: on every repeat)?/) !== null;
  const end = take(/,? end(?:s|ing)? on (?:the )?(\S+)/);
  const start = take(/,? (?:from|start(?:s|ing)? on) (?:the )?(\S+)/) ?? '1';
  const closes = take(/,? (?:(?:and )?(?:cut|rest)(?: the (?:last|rest)(?: one)?)?)/);
  const counting = countingOf(pattern, USUAL_SCHOOLS);
  if (
    rest.trim() !== '' ||
    parseCount(start, counting) === null ||
    (end !== null && parseCount(end, counting) === null)
  )
    return [];
  if (strokes !== null && !parseStrokeText(strokes.toUpperCase()).ok) return [];
  const space = found[3]?.startsWith('bar') ? { bars: n } : { beats: n };
  const common = { space, start, mirrored, ...(end === null ? {} : { end }) };
  if (strokes !== null) return [offerOf('fit', { ...common, close: { kind: 'strokes', text: strokes.toUpperCase() } })];
  const cut = offerOf('fit', { ...common, close: { kind: 'cut' } });
  const leave = offerOf('fit', { ...common, close: { kind: 'rest' } });
  return closes?.includes('rest') ? [leave] : closes ? [cut] : [cut, leave];
};

/** "put it on triplets", "sextuplets". */
export const grids: Reader = (text, pattern) => {
  const word = text.replace(/^(?:put it |play it |it )?(?:on|in|as|to) /, '');
  const grid = gridSaid(word);
  return grid !== null && gridsOf(pattern.meter).includes(grid) && grid !== pattern.grid
    ? [offerOf('grid', { grid })]
    : [];
};

const RATES: readonly (readonly [RegExp, number, number])[] = [
  [/^(?:double[- ]time|twice as fast|double speed|halve (?:it|the lengths))$/, 1, 2],
  [/^(?:half[- ]time|half as fast|twice as slow|double the lengths)$/, 2, 1],
];

/** "twice as fast", "half-time". */
export const rates: Reader = (text) =>
  RATES.flatMap(([said, times, by]) => (said.test(text) ? [offerOf('rate', { times, by })] : []));

/** "later by 2", "displace it 3 slots earlier", "start on the & of 1". */
export const shifts: Reader = (text, pattern) => {
  const by = new RegExp(
    `^(?:displace|shift|move|start)?(?: it)? ?(?:by )?(?:${AN} )?(?:slots? )?(later|earlier)(?: by ${AN})?(?: slots?)?$`,
  ).exec(text);
  if (by) {
    const n = numberOf(by[1] ?? by[3] ?? 'a');
    return n === null || n < 1 ? [] : [offerOf('shift', { slots: by[2] === 'later' ? n : -n, mode: 'wrap' })];
  }
  const on = /^(?:displace|shift|move|start)(?: it)? (?:to|on) (?:the )?(.+)$/.exec(text);
  if (!on) return [];
  const start = countSaid(on[1] ?? '', pattern);
  if (start === null || pattern.strokes.length === 0) return [];
  return [offerOf('shift', { slots: 0, mode: 'wrap', start })];
};

/** "swap the hands", "lead with the left". */
export const mirrors: Reader = (text) =>
  /^(?:swap (?:the )?hands|mirror(?: it)?|(?:lead with )?the other hand(?: first)?|lead with the (?:left|right|other hand))$/.test(
    text,
  )
    ? [offerOf('mirror', { feet: false })]
    : [];

/** "land on the 1 with the crash", "land". */
export const landings: Reader = (text) => {
  const found = /^land(?: it)?(?: on (?:the )?(?:next )?1)?(?: with (.+))?$/.exec(text);
  if (!found) return [];
  const crash = offerOf('land', { voice: 'crash-right', hand: 'R', kick: true });
  const kick = offerOf('land', { hand: 'R', kick: true });
  const how = found[1];
  if (how === undefined) return [crash, kick];
  return /crash/.test(how) ? [crash] : /kick/.test(how) ? [kick] : [];
};

/** "pick-up R L", "pick up with R L K before the 1", "R L before the 1". */
export const pickups: Reader = (text) => {
  const found = /^(?:a )?pick[- ]?up:?(?: with| of)? (.+?)(?: before (?:the )?1)?$|^(.+) before (?:the )?1$/.exec(text);
  const strokes = (found?.[1] ?? found?.[2] ?? '').toUpperCase();
  return strokes !== '' && parseStrokeText(strokes).ok ? [offerOf('pickup', { text: strokes })] : [];
};

const LAYERS: readonly (readonly [
  RegExp,
  Offer['entry']['move'],
  Parameters<typeof offerOf<'layer'>>[1]['limb'],
  Parameters<typeof offerOf<'layer'>>[1]['voice'],
])[] = [
  [/^(?:hi-hat foot|hat foot|foot hat)\b/, 'layer', 'H', 'hat-foot'],
  [/^(?:kicks?|bass drum)\b/, 'layer', 'K', 'kick'],
  [/^(?:ride)\b/, 'layer', 'R', 'ride'],
  [/^(?:hi-hats?|hats?)\b/, 'layer', 'R', 'hat-closed'],
  [/^(?:snare|backbeats?)\b/, 'layer', 'L', 'snare'],
];

/** "backbeat on 2 and 4", "hi-hat foot every beat", "ride eighths", "kick on 1 and 3". */
export const layers: Reader = (text, pattern) =>
  LAYERS.flatMap(([word, , limb, voice]): Offer[] => {
    const found = word.exec(text);
    if (!found) return [];
    const rest = text.slice(found[0].length).trim();
    const level = voice === 'snare' ? 'accent' : 'tap';
    const layer = (on: Parameters<typeof offerOf<'layer'>>[1]['on']): Offer =>
      offerOf('layer', { limb, voice, level, on, clash: 'keep' });
    if (rest === '' && found[0].startsWith('backbeat')) {
      const beats = barTicks(pattern.meter) / beatTicks(pattern.meter);
      return [layer({ kind: 'counts', counts: beats >= 4 ? ['2', '4'] : ['2'] })];
    }
    const counts = /^on (?:beats? )?(?:the )?([\d][\d\s,&a-z]*)$/.exec(rest);
    if (counts) {
      const said = (counts[1] ?? '')
        .split(/,|\band\b/)
        .map((c) => c.trim())
        .filter(Boolean);
      const counting = countingOf(pattern, USUAL_SCHOOLS);
      return said.length > 0 && said.every((c) => parseCount(c, counting) !== null)
        ? [layer({ kind: 'counts', counts: said })]
        : [];
    }
    if (/^(?:on )?every beat$/.test(rest)) return [layer({ kind: 'grid', grid: beatTicks(pattern.meter) })];
    const grid = parseGrid(rest.replace(/^(?:on|in|every) /, ''));
    return grid === null ? [] : [layer({ kind: 'grid', grid })];
  });

/** "down the toms", "round the kit in threes". */
export const travels: Reader = (text) => {
  const found = new RegExp(
    `^(?:travel |go |walk )?(?:round|around|down|up) the (kit|toms)(?: in (${NUMBER}|ones|twos|threes|fours))?$`,
  ).exec(text);
  if (!found) return [];
  const size = { ones: 1, twos: 2, threes: 3, fours: 4 }[found[2] ?? ''] ?? numberOf(found[2] ?? '');
  const toms = (['high-tom', 'mid-tom', 'floor-tom'] as const).map((v) => ({ right: v, left: v }));
  const stations = found[1] === 'kit' ? [{ right: 'snare' as const, left: 'snare' as const }, ...toms] : toms;
  const common = {
    select: { limbs: ['R' as const, 'L' as const] },
    stations: text.includes('up the') ? stations.reverse() : stations,
    order: [],
  };
  if (size !== null) return [offerOf('route', { ...common, sizes: [Math.max(1, Math.min(64, size))] })];
  // Doubles must not be torn apart unasked: by hand, by pair and by stroke are all offered.
  return [
    offerOf('route', { ...common, sizes: [1], by: 'hand' }),
    offerOf('route', { ...common, sizes: [2] }),
    offerOf('route', { ...common, sizes: [1] }),
  ];
};

/** A count as it is said: "bar 4: 3", "the & of 3", "4:3". Null for none of the phrase. */
function countSaid(said: string, pattern: Pattern): string | null {
  const count = said
    .trim()
    .replace(/^bar (\d+)[:,]? ?/, '$1:')
    .replace(/(^|:)(?:the )?(\S+) of (\d+)$/, '$1$3$2')
    .replace(/(^|:)the /, '$1');
  return parseCount(count, countingOf(pattern, USUAL_SCHOOLS)) === null ? null : count;
}

/** "start again from 3", "restart on the & of 2", "start again from 2:3 to the end". */
export const restarts: Reader = (text, pattern) => {
  const found =
    /^(?:start (?:it )?(?:again|over)|restart(?: it)?|begin again) (?:from|on|at) (.+?)( to the end(?: of (?:the phrase|it))?)?$/.exec(
      text,
    );
  const at = found ? countSaid(found[1] ?? '', pattern) : null;
  return at === null ? [] : [offerOf('restart', { at, until: found?.[2] ? 'end' : 'bar' })];
};

/** "the first eight as 32nds", "first 8 as 32nds on 3", "slots 5 to 8 as sextuplets". */
export const bursts: Reader = (text, pattern) => {
  const found = new RegExp(
    `^(?:put |play )?(?:the )?(?:first ${AN}(?: slots?| strokes?)?|slots? (\\d+)(?: to (\\d+))?) (?:as|on|in) (\\S+)(?:,? (?:on|from) (.+))?$`,
  ).exec(text);
  const grid = found ? gridSaid(found[4] ?? '') : null;
  if (!found || grid === null || grid === pattern.grid) return [];
  const from = found[2] === undefined ? 1 : Number(found[2]);
  const to = found[2] === undefined ? numberOf(found[1] ?? '') : Number(found[3] ?? found[2]);
  if (to === null || to < from || from < 1 || to * pattern.grid > pattern.length) return [];
  if (found[5] === undefined) return [offerOf('grid', { grid, part: { from, to } })];
  const on = countSaid(found[5], pattern);
  return on === null ? [] : [offerOf('grid', { grid, part: { from, to, on } })];
};

function gridSaid(word: string): Grid | null {
  return word === 'sixteenths' ? GRID.sixteenths : word === 'thirty-seconds' ? GRID.thirtySeconds : parseGrid(word);
}
