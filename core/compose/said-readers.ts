import { NUMBER_WORDS } from '../base';
import { SLOTS, type SlotReader, type SlotReaders, type Token } from '../language';
import { searchRudiments } from '../rudiments';
import { parseMeter } from '../time';

export const word = (tokens: readonly Token[], at: number): string => tokens[at]?.word ?? '';
const UNITS: ReadonlyMap<string, number> = new Map([
  ['two', 2],
  ['four', 4],
  ['eight', 8],
  ['sixteen', 16],
]);

/** "7/8", "seven eight". */
const meterSlot: SlotReader = (tokens, at) => {
  const w = word(tokens, at);
  if (w.includes('/')) return parseMeter(w) ? [{ end: at + 1, value: w }] : [];
  const unit = UNITS.get(word(tokens, at + 1).replace(/s$/, ''));
  if (unit === undefined) return [];
  return (SLOTS['n']?.(tokens, at) ?? []).flatMap((n) =>
    n.end === at + 1 && parseMeter(`${String(n.value)}/${unit}`)
      ? [{ end: at + 2, value: `${String(n.value)}/${unit}` }]
      : [],
  );
};

/** The name of a rudiment, also of several: the longest that is one. A plain "paradiddle" is the single one. */
const rudimentSlot: SlotReader = (tokens, at) => {
  for (let long = Math.min(5, tokens.length - at); long > 0; long--) {
    const said = Array.from({ length: long }, (_, i) => tokens[at + i]?.raw.toLowerCase() ?? '')
      .map((w, i) => (i === 0 && /^\d{1,2}$/.test(w) ? (NUMBER_WORDS[Number(w) - 1] ?? w) : w))
      .join(' ');
    const name = said.replace(/s$/, '');
    const is = (own: string): boolean => own.toLowerCase().replace(/-/g, ' ') === name.replace(/-/g, ' ');
    const found =
      searchRudiments('').find((r) => is(r.name)) ??
      searchRudiments('').find((r) => is(r.name.replace(/^Single /, '')));
    if (found) return [{ end: at + long, value: found.name.toLowerCase() }];
  }
  return [];
};

/** Sizes of groups that are named as such: "threes", "5s", "threes fours and fives". */
const groupsSlot: SlotReader = (tokens, start) => {
  const out: { readonly end: number; readonly value: readonly number[] }[] = [];
  let [at, list] = [start, [] as readonly number[]];
  for (;;) {
    const [n] = /s$/.test(word(tokens, at)) ? (SLOTS['n']?.(tokens, at) ?? []) : [];
    if (!n || n.end !== at + 1) break;
    list = [...list, n.value as number];
    if (areSizes(list)) out.push({ end: n.end, value: list });
    at = n.end;
    while (/^(?:,|and|\+|plus|or)$/.test(word(tokens, at))) at++;
  }
  return out;
};
/** Sizes in figures or words, behind a word for groups. */
const sizesSlot: SlotReader = (tokens, at) =>
  (SLOTS['sizes']?.(tokens, at) ?? []).filter((f) => areSizes(f.value as readonly number[]));
const areSizes = (sizes: readonly number[]): boolean => sizes.every((n) => n >= 3 && n <= 7);

/** Strokes of two letters at least: a cell. */
const cellSlot: SlotReader = (tokens, at) =>
  (SLOTS['letters']?.(tokens, at) ?? []).filter((f) => (f.value as string).includes(' ')).slice(-1);

export const READERS: SlotReaders = {
  ...SLOTS,
  meter: meterSlot,
  rudiment: rudimentSlot,
  groups: groupsSlot,
  sizes: sizesSlot,
  cell: cellSlot,
};
