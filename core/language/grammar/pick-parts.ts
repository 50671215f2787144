import {
  GRID_TERMS,
  LEVEL_TERMS,
  LIMB_TERMS,
  NUMBERS,
  ORDINALS,
  ORNAMENT_TERMS,
  SYLLABLES,
  voiceTerm,
} from '../lexicon/terms';
import { barsAt, countAt, countsAt, word, type CountSaid } from './counts';
import type { Pick } from './picked';
import type { Found } from '../lexicon/template';
import type { Token } from '../lexicon/tokens';
import {
  type Part,
  GENERIC,
  ALL,
  NOT_SO,
  THEM,
  LEAD,
  REPEAT,
  EACH,
  said,
  described,
  whereAt,
  notWhereAt,
  ordered,
  skipThe,
} from './pick-nouns';

/** The words of pickings, for the vocabulary. */
export const PICK_WORDS: readonly string[] = [
  ...GENERIC,
  ...ALL,
  ...THEM,
  ...LEAD,
  ...EACH.keys(),
  ...LEVEL_TERMS.keys(),
  ...ORNAMENT_TERMS.keys(),
  ...GRID_TERMS.keys(),
  ...ORDINALS.keys(),
  ...NUMBERS.keys(),
  ...SYLLABLES.keys(),
  ...NOT_SO.keys(),
  ...'next doubles singles upbeats last very middle other second start beginning end of on in at before after from to until till up till between except but other-than apart-from bar measure half and or offbeats downbeats backbeat numbers rest elsewhere else others where wherever time go repetition which that are is left plays play onwards on starting beginning counting single double same thing isnt arent is not doesnt dont does do play nothing silent rests free right just directly immediately straight each any my'.split(
    ' ',
  ),
];

/** "that is not an accent", "which aren't on the snare": what does not belong. */
function isNotAt(tokens: readonly Token[], start: number): readonly Found<Pick>[] {
  if (!/^(?:that|which)$/.test(word(tokens, start))) return [];
  const two = `${word(tokens, start + 1)} ${word(tokens, start + 2)}`;
  const at = /^(?:isnt|arent)\b/.test(two) ? start + 2 : /^(?:is|are) (?:not|no)$/.test(two) ? start + 3 : null;
  if (at === null) return [];
  const next = /^(?:an?|the|on)$/.test(word(tokens, at)) ? at + 1 : at;
  return described(tokens, next).map((d) => ({
    end: d.end,
    value: { base: null, ...d.value, said: said(tokens, next, d.end) },
  }));
}

/** "before each kick", "right after the accents": those that stand next to others. */
function besideAt(tokens: readonly Token[], start: number): readonly Found<NonNullable<Part['beside']>>[] {
  let at = start;
  if (/^(?:right|just|directly|immediately|straight)$/.test(word(tokens, at))) at++;
  const how = /^(before|after)$/.exec(word(tokens, at))?.[1] as 'before' | 'after' | undefined;
  if (!how) return [];
  let next = at + 1;
  while (/^(?:the|each|every|all|my|any|a)$/.test(word(tokens, next))) next++;
  const parts = [...described(tokens, next), ...ordered(tokens, next)];
  return parts.flatMap((d) => {
    // "Before the first" says not of what.
    const named = d.value.limb ?? d.value.levels ?? d.value.voices ?? d.value.ornaments;
    if (!named) return [];
    const what: Pick = { base: null, ...d.value, said: said(tokens, at + 1, d.end) };
    return [{ end: d.end, value: { how, what } }];
  });
}

/** What narrows a picking down, one after the other. */
export function narrowed(tokens: readonly Token[], found: Found<Part>, depth: number): readonly Found<Part>[] {
  const out: Found<Part>[] = [found];
  if (depth > 3) return out;
  const { end: at, value: part } = found;
  let w = word(tokens, at);
  const add = (f: Found, more: Part): void =>
    void out.push(...narrowed(tokens, { end: f.end, value: { ...part, ...more } }, depth + 1));
  for (const f of isNotAt(tokens, at)) if (!part.except) add(f, { except: [f.value] });
  if (w === 'which' || w === 'that') {
    const next = word(tokens, at + 1);
    if (next === 'are' || next === 'is') return [...out, ...narrowed(tokens, { end: at + 2, value: part }, depth)];
  }
  if (w === ',') w = word(tokens, at + 1) === 'from' ? w : '';
  if (/^(?:on|at|of)$/.test(w)) {
    // "the last of every beat" is the last in each, not one on a beat.
    const each = w === 'of' && part.order !== undefined;
    // "The first of every two" says how many, and no count.
    if (!part.counts && !(w === 'of' && /^(?:every|each|all)$/.test(word(tokens, at + 1))))
      for (const f of countsAt(tokens, at + 1))
        if (!each || f.value.every((c) => c.beat !== null)) add(f, { counts: f.value });
    let next = at + 1;
    while (word(tokens, next) === 'the') next++;
    const voice = voiceTerm(word(tokens, next));
    if (voice && w === 'on' && !part.voices) add({ end: next + 1, value: null }, { voices: voice.of });
    const limb = LIMB_TERMS.get(word(tokens, next));
    if (limb && w !== 'at' && !part.limb) add({ end: next + 1, value: null }, { limb });
  }
  // "In beat 3" is all of it.
  if (w === 'in' && !part.counts)
    for (const f of countsAt(tokens, at + 1))
      if (f.value.every((c) => c.as !== 'count'))
        add(f, { counts: f.value.map((c): CountSaid => ({ ...c, as: 'whole' })) });
  if (/^(?:in|of|on|from)$/.test(w) && !part.bars) {
    for (const f of barsAt(tokens, at + 1)) {
      if (w === 'from') continue;
      add(f, { bars: f.value });
      // "2 only"
      if (word(tokens, f.end) === 'only') add({ end: f.end + 1, value: null }, { bars: f.value });
    }
    if (
      /^(?:every|each|all)$/.test(word(tokens, at + 1)) &&
      /^(?:bars?|beats?)$/.test(word(tokens, at + 2)) &&
      w !== 'from'
    )
      if (word(tokens, at + 2).startsWith('bar') && !part.order) add({ end: at + 3, value: null }, {});
    let next = at + 1;
    while (word(tokens, next) === 'the') next++;
    if (/^(?:first|last)$/.test(word(tokens, next)) && REPEAT.test(word(tokens, next + 1)) && !part.repeat)
      add({ end: next + 2, value: null }, { repeat: word(tokens, next) === 'first' ? 'first' : 'last' });
    const half = word(tokens, next);
    if (/^(?:first|second)$/.test(half) && word(tokens, next + 1) === 'half')
      add({ end: next + 2, value: null }, { half: half === 'first' ? 1 : 2 });
  }
  if (!part.order && /^(?:on|at)$/.test(w))
    for (const f of ordered(tokens, skipThe(tokens, at + 1))) add(f, orderOnly(f.value));
  if (w === 'between' && !part.between) {
    for (const a of countAt(tokens, at + 1)) {
      if (!/^(?:and|&)$/.test(word(tokens, a.end))) continue;
      for (const b of countAt(tokens, a.end + 1)) add(b, { between: [a.value, b.value] });
    }
    // Between the accents is what is no accent.
    for (const d of described(tokens, skipThe(tokens, at + 1)))
      if (d.value.levels ?? d.value.limb ?? d.value.voices)
        add(d, { except: [{ base: null, ...d.value, said: said(tokens, at + 1, d.end) }] });
  }
  if (/^(?:where|wherever)$/.test(w) && !part.where && !part.except) {
    for (const f of whereAt(tokens, at + 1)) add(f, { where: f.value });
    for (const f of notWhereAt(tokens, at + 1))
      add(f, { except: [{ base: 'all', where: f.value, said: f.value.said }] });
  }
  for (const f of besideAt(tokens, at)) if (!part.beside) add(f, { beside: f.value });
  // "The last left of the phrase": of all there is.
  if (w === 'of' && part.order && /^(?:the|this|it)$/.test(word(tokens, at + 1))) {
    const whole = word(tokens, at + 1) === 'it' ? at + 1 : word(tokens, at + 2) === 'whole' ? at + 3 : at + 2;
    if (/^(?:it|phrase|thing|lot|fill|lick|groove|pattern|line)$/.test(word(tokens, whole)))
      add({ end: whole + 1, value: null }, {});
  }
  if (w === 'of' && part.order && !part.base && THEM.has(word(tokens, at + 1)))
    add({ end: at + 2, value: null }, { base: 'them' });
  if (w === 'before') for (const f of countAt(tokens, at + 1)) add(f, { before: f.value });
  if (w === 'after')
    for (const f of countAt(tokens, at + 1)) {
      // Behind a beat is behind all of it: from the next one on.
      const { beat, as, syllable } = f.value;
      const since = as === 'count' || beat === null || syllable !== '' ? null : { ...f.value, beat: beat + 1 };
      add(f, since ? { since: { ...since, as: 'count' } } : { after: f.value });
    }
  if (/^(?:until|till)$/.test(w) || (w === 'up' && word(tokens, at + 1) === 'to'))
    for (const f of countAt(tokens, w === 'up' ? at + 2 : at + 1)) add(f, { until: f.value });
  // "Every third note starting on the & of 1"
  if (/^(?:starting|beginning|counting)$/.test(w) && /^(?:on|at|from|with)$/.test(word(tokens, at + 1)) && part.order)
    for (const f of countAt(tokens, at + 2)) add(f, { since: f.value });
  if (w === 'from')
    for (const f of countAt(tokens, at + 1)) {
      const next = word(tokens, f.end);
      if (next === 'on' || next === 'onwards') add({ end: f.end + 1, value: null }, { since: f.value });
      if (next === 'to') for (const t of countAt(tokens, f.end + 1)) add(t, { since: f.value, to: t.value });
      add(f, { since: f.value });
    }
  return out;
}
const orderOnly = (part: Part): Part => ({
  ...(part.order ? { order: part.order } : {}),
  ...(part.grid ? { grid: part.grid } : {}),
});
