import type { CountSaid, SpaceSaid } from '../language';
import { barTicks, beatTicks, countedBeats, gridsOf, type Grid } from '../time';
import { meterOf, mostBars, slotsAsked, type Block, type Keep } from './demands';
import { clause, handSaid, limbsSaid, set, voiceSaid, withWishes, type Change, type Clause } from './said-clause';

const blocks =
  (...more: readonly Block[]): (() => Change) =>
  () =>
  (d) => ({ ...d, blocks: [...d.blocks.filter((b) => !more.includes(b)), ...more] });
const keeps =
  (what: Keep): (() => Change) =>
  () =>
  (d) => ({ ...d, keeps: [...d.keeps.filter((k) => k !== what), what] });

export const SPACE: readonly Clause[] = [
  clause(
    ['[over|for|lasting|across] {space} [long|fill|phrase|lick]', '[over] bar [long]'],
    (v) => (d) => {
      const space = (v['space'] ?? { bars: 1 }) as SpaceSaid;
      const meter = meterOf(d);
      const bars = 'bars' in space ? space.bars : (space.beats * beatTicks(meter)) / barTicks(meter);
      return { ...d, bars: Math.min(mostBars(d), bars) };
    },
    true,
  ),
  clause(['[in|of] {meter} [time]'], (v) => (d) => ({ ...d, meter: v['meter'] as string }), true),
  clause(
    ['[in|of|on] {grid}'],
    (v) => (d) => {
      const grid = v['grid'] as Grid;
      return gridsOf(meterOf(d)).includes(grid) ? { ...d, grid } : d;
    },
    true,
  ),
  clause(
    ['(start|starts|starting|begin|begins|beginning) (on|at|from) {count}', 'from {count} [on|to the end]'],
    (v) => {
      const { beat, syllable } = v['count'] as CountSaid;
      return beat === null
        ? null
        : (d) => ({ ...d, from: beat === 1 && syllable === '' ? null : `${beat}${syllable}` });
    },
    true,
  ),
  clause(
    ['[over|in|on] [the] last {n} beats [of the bar]', '[over|in|on] [the] last beat [of the bar]'],
    (v) => (d) => {
      const beats = countedBeats(meterOf(d));
      const first = beats.at(-((v['n'] as number | undefined) ?? 1));
      return { ...d, from: first && first.number > 1 ? String(first.number) : null };
    },
    true,
  ),
];

const START = '(start|starts|starting|lead|leads|leading|begin|begins|beginning|open|opens|opening)';
const END = '(end|ends|ending|finish|finishes|finishing|close|closes|closing)';
const HOLDS =
  '(hold|holds|holding|playable|plays|play|good|works|work|fine|ok|safe|clean|possible|doable|comfortable|easy|fast enough)';
export const WHOLE: readonly Clause[] = [
  clause(
    ['[all] linear', 'one limb at a time', 'no unisons', 'nothing together', 'linear only'],
    set({ linear: true }),
  ),
  clause(
    [
      'not linear',
      'not [necessarily] linear',
      '(hand|hands) and (kick|feet|foot) [may be|can be|may|can] together [is fine|are fine|allowed]',
      'unisons [are|is] (fine|allowed|ok|welcome)',
      'with unisons',
    ],
    set({ linear: false }),
  ),
  clause(
    [
      '(no|not|never) more than {n} in a row [with one hand|by one hand|of one hand|with a hand|per hand]',
      '(no|not|never) more than {n} (with|by|per|of) [one|a|either|the same] hand [in a row]',
      '(at most|maximum|up to) {n} [lefts|rights|strokes] (in a row|with one hand|by one hand|per hand) [with one hand]',
    ],
    (v) => (d) => ({ ...d, hand: Math.min(8, v['n'] as number) }),
  ),
  clause(['(no|never) {n} in a row [with one hand|by one hand]', '(no|never) {n} with one hand'], (v) => (d) => ({
    ...d,
    hand: Math.max(1, (v['n'] as number) - 1),
  })),
  clause(
    [
      '(nothing|no run|no runs) (bigger|longer|more) than [a] (double|doubles)',
      '(at most|up to) doubles',
      'doubles at most',
    ],
    set({ hand: 2 }),
  ),
  clause(['(no|without|never) [any] doubles', 'hand to hand', 'alternating [hands]'], set({ hand: 1 })),
  clause(
    [
      '(no|never) two kicks [in a row|together]',
      '(no|never) double kicks',
      '(no|not|never) more than one kick [in a row|at a time]',
      'single kicks [only]',
    ],
    set({ foot: 1 }),
  ),
  clause(
    ['(hands|sticks) only', 'only [the] hands', '(no|without) (kick|kicks|feet|bass drum) [at all]'],
    () =>
      (d, { schools }) => {
        const slots = Array.from({ length: slotsAsked(d, schools) }, (_, i) => i);
        const own = d.blocks.filter((b) => b === 'singles' || b === 'rests' || b === 'rudiments' || b === 'own');
        return {
          ...withWishes(d, slots, 'K', false),
          blocks: own.length > 0 || d.rudiments.length > 0 ? own : ['singles'],
        };
      },
  ),
  clause(
    ['(no|not|never) more than {n} kicks [in a row|at a time]', '(at most|maximum|up to) {n} (kick|kicks) [in a row]'],
    (v) => (d) => ({ ...d, foot: Math.min(8, v['n'] as number) }),
  ),
  clause([`${START} [with|on|off] {limb}`, '{limb} (lead|leads|first|leading)'], (v) => {
    const hand = handSaid(v);
    return hand && ((d) => ({ ...d, lead: hand }));
  }),
  clause([`${START} and ${END} (with|on) {limb}`], (v) => {
    const hand = handSaid(v);
    return hand && ((d) => ({ ...d, lead: hand, end: hand }));
  }),
  clause([`${END} [with|on] {limb}`, `{limb} (last|end|ends|finishes)`], (v) => {
    const hand = handSaid(v);
    return hand && ((d) => ({ ...d, end: hand }));
  }),
  clause(
    [
      '(land|lands|landing) [on|with] {voices} [and [the] kick] [with {limb}]',
      '(land|lands|landing) with {limb} on {voices}',
      '(land|lands|landing) [on] {limb}',
      '(land|lands|landing) [on the (1|one)] [with {limb}]',
    ],
    (v) => {
      if (v['limb'] && limbsSaid(v)[0] === 'K') return (d) => ({ ...d, lands: 'kick' });
      const voice = v['voices'] ? voiceSaid(v) : 'crash-right';
      if (voice !== 'crash-right' && voice !== 'crash-left') return null;
      const hand = v['limb'] ? handSaid(v) : null;
      return (d) => ({ ...d, lands: hand === 'L' || (hand === null && voice === 'crash-left') ? 'left' : 'right' });
    },
  ),
  clause(
    [
      `[must|should|can|to] [be] ${HOLDS} (at|for|up to|to) {n} [bpm]`,
      '(not|no) faster than i can play [at] {n} [bpm]',
      '[at|up to|around|about] {n} bpm',
      '(at|tempo) {n} [bpm]',
    ],
    (v) => (d) => ({ ...d, holds: Math.min(400, v['n'] as number) }),
  ),
  clause(['{n} (slots|strokes|notes) (unlike|off|from|away from) (my|the) shelf'], (v) => (d) => ({
    ...d,
    unlike: Math.min(64, v['n'] as number),
  })),
  clause(
    [
      '(nothing|not|unlike) [like] (what|anything) i (have|know|play) [already]',
      '(nothing|not) like (my|the) shelf',
      'unlike (my|the) shelf',
      '[something] new to me',
      'something new',
      'nothing i (have|know|play) [already]',
    ],
    () =>
      (d, { schools }) => ({ ...d, unlike: Math.max(4, Math.floor(slotsAsked(d, schools) / 4)) }),
  ),
  clause(
    [
      '[with] [the] last [one|group|cell] [may be|can be|is|may|can] cut [off]',
      'cut [off] [the] last [one|group|cell] [off]',
    ],
    set({ cut: true }),
  ),
  clause(['whole groups [only]', 'nothing cut [off]'], set({ cut: false })),
  clause(
    [
      '[the] kick (as it (stands|is)|stays|stands) [as it is]',
      '[keep|the same|same] (round|around) [the|this|my] kick [as it stands|as it is]',
      '(keep|same|hold) [the|my|this] kick [as it is|as it stands]',
    ],
    keeps('kick'),
  ),
  clause(
    ['(keep|same) [the|my] (hands|sticking) [as they are]', '[the] (hands|sticking) (stays|stay) [as they are]'],
    keeps('hands'),
  ),
  clause(
    [
      '(keep|same) [the|my] accents [where they are]',
      '[the] accents (stay|where they are) [now|as they are|where they are]',
    ],
    keeps('accents'),
  ),
  clause(
    [
      '(change|swap|other) [only] {n} (strokes|slots|notes) [at most]',
      '{n} (strokes|slots|notes) (may|can) (change|differ|be different)',
      'like this [one] [but] {n} (strokes|slots|notes) (different|other|changed|off|away) [at most]',
      '{n} (strokes|slots|notes) (different|other|changed) [at most]',
    ],
    (v) => (d) => ({ ...d, like: Math.min(32, v['n'] as number) }),
  ),
  clause(['like this [one] [but different]'], set({ like: 4 })),
  clause(['sparse', '[lots of|with|more] space', 'half as dense', 'few strokes', '[lots of] air'], () => (d) => ({
    ...d,
    density: 'half',
    blocks: d.blocks.includes('rests') ? d.blocks : [...d.blocks, 'rests'],
  })),
  clause(
    [
      'dense',
      'busy',
      'no (rests|gaps)',
      'without (rests|gaps)',
      'every (slot|note|stroke|sixteenth) [is] [played|struck|filled]',
      'every {grid} [is] [played|struck|filled]',
    ],
    set({ density: 'every' }),
  ),
  clause(['down the toms'], set({ way: 'down' })),
  clause(['up the toms [from the floor]', 'from the floor tom up'], set({ way: 'up' })),
  clause(['hands apart'], set({ way: 'apart' })),
  clause(['[all] on [the] floor_tom'], set({ way: 'floor' })),
  clause(['accents on [the] (crash|crashes|cymbals)'], set({ way: 'crashes' })),
  clause(
    ['(different|another|new|other) (sticking|hands)', '(move|change) the kicks', 'hands free', 'on (my|this) kit'],
    () => (d) => d,
  ),
  clause(['fill the rest [with]', '[the] rest (free|is free)'], () => (d) => d),
];

/** What it is built from: said anew, what was chosen before goes. */
export const BUILT: readonly Clause[] = [
  clause(
    [
      '[in|of|from|with|using|only] {groups} [only]',
      'linear {sizes}',
      '(closing|ending|finishing) with [a] {sizes}',
      '(groups|group|cells) of {sizes}',
      'in groups of {sizes}',
    ],
    (v) => {
      const said = (v['groups'] ?? v['sizes']) as readonly number[];
      const own = (['3', '4', '5', '6', '7'] as const).filter((b) => said.includes(Number(b)));
      return blocks(...own)();
    },
  ),
  clause(
    ['[with] [a|the] (kick|kicks) inside [[of] (groups|group) of {sizes}|{groups}|the groups]'],
    blocks('kick-inside'),
  ),
  clause(
    ['[with] (two|double) kicks [at the end|behind] [of (each|every) group]', 'ending in two kicks'],
    blocks('two-kicks'),
  ),
  clause(['[only] (singles|single strokes) [only]'], blocks('singles')),
  clause(['[only|with] (kicks|single kicks) allowed', '[with] [a] (few|some|occasional) kicks'], blocks('kicks')),
  clause(['[and|with] rests [allowed]'], blocks('rests')),
  clause(['[only] rudiments [only]'], blocks('rudiments')),
  clause(['[only|in|of|from|using] {rudiment} [only]'], (v) => (d) => ({
    ...d,
    rudiments: [...d.rudiments.filter((r) => r !== v['rudiment']), v['rudiment'] as string],
  })),
  clause(['[only|from|using] {cell} [only]'], (v) => (d) => ({
    ...d,
    own: d.blocks.includes('own') && d.own.trim() !== '' ? `${d.own}, ${v['cell'] as string}` : (v['cell'] as string),
    blocks: [...d.blocks.filter((b) => b !== 'own'), 'own'],
  })),
];
