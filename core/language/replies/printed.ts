import {
  LIMBS,
  LIMB_WORDS,
  ORNAMENTS,
  parseStrokeText,
  VOICE,
  VOICES,
  type Limb,
  type Voice,
  SAME_HAND,
} from '../../stroke';
import { countingOf, type Pattern } from '../../pattern';
import { readSelection, type Selection } from '../../selection';
import { parseGrid, USUAL_SCHOOLS } from '../../time';
import { describeMove, type MoveEntry, type MoveName, type MoveParams } from '../../recipe';
import { COUNT } from '../lexicon/tokens';

/** Reads a selection of a phrase, or of any where it is not known; then places chosen by hand have no counts. */
function withSelectionOf(on: Pattern | undefined): WithSelection {
  const placing = on && { counting: countingOf(on, USUAL_SCHOOLS), start: on.start };
  return (words, make) => {
    const read = readSelection(words ?? '', placing);
    return read ? make(read) : null;
  };
}

const limbOf = (words: string): Limb | undefined => LIMBS.find((l) => LIMB_WORDS[l] === words);
const voiceOf = (words: string): Voice | undefined => VOICES.find((v) => VOICE[v].name === words.replace(/^the /, ''));
const listOf = (words: string): readonly string[] => words.split(/, | and /);

function voicesOf(words: string): Voice[] | null {
  const found = listOf(words).map(voiceOf);
  return found.every((v) => v !== undefined) ? found : null;
}

type Params = MoveParams[MoveName] | null;
type Groups = readonly (string | undefined)[];
const LIMB = LIMBS.map((l) => LIMB_WORDS[l]).join('|');
const SHIFTED = '(?:, (\\d+) slots? (later|earlier))?';
const by = (n: string | undefined, way: string | undefined): { shift?: number } =>
  n === undefined ? {} : { shift: way === 'later' ? Number(n) : -Number(n) };
type WithSelection = <T>(words: string | undefined, make: (select: Selection) => T) => T | null;

type Form = readonly [MoveName, RegExp, (g: Groups, withSelection: WithSelection) => Params];

/** A part as it is said, without "all strokes" before it. */
function partSaid<T>(withSelection: WithSelection, who: string, make: (select: Selection) => T): T | null {
  const [as, within, on] = [who, `all strokes in ${who}`, `all strokes on ${who}`];
  return withSelection(as, make) ?? withSelection(within, make) ?? withSelection(on, make);
}

function routeOf(
  withSelection: WithSelection,
  stops: string,
  who: string | undefined,
  list: string,
  hands: boolean,
): Params {
  const stations = listOf(stops).map((s) => {
    const [right = '', left = right] = s.split(' with ');
    return { right: voiceOf(right), left: voiceOf(left) };
  });
  if (stations.some((s) => !s.right || !s.left)) return null;
  const sizes = list.trim() === '' ? [1] : listOf(list.trim()).map(Number);
  return withSelection(who, (select) => ({
    select,
    stations,
    order: [],
    sizes,
    ...(hands ? { by: 'hand' as const } : {}),
  }));
}

/** How the sentence of each move is read back to its parameters. */
const PRINTED: readonly Form[] = [
  [
    'level',
    new RegExp(`^(Accent|Ghost) (.+?)${SHIFTED}$`),
    ([, verb, who, n, way], withSelection) =>
      withSelection(who, (select) => ({ select, level: verb === 'Accent' ? 'accent' : 'ghost', ...by(n, way) })),
  ],
  [
    'level',
    new RegExp(`^Play (.+) as plain taps${SHIFTED}$`),
    ([, who, n, way], withSelection) => withSelection(who, (select) => ({ select, level: 'tap', ...by(n, way) })),
  ],
  ['drop', /^Remove (.+)$/, ([, who], withSelection) => withSelection(who, (select) => ({ select }))],
  [
    'cut',
    /^Cut (.+) out, the rest moves up$/,
    ([, who], withSelection) => withSelection(who, (select) => ({ select })),
  ],
  [
    'swap',
    new RegExp(`^Give (.+) to the (other hand|${LIMB})$`),
    ([, who, to = ''], withSelection) =>
      withSelection(who, (select) => ({
        select,
        limb: to === 'other hand' ? ('other' as const) : (limbOf(to) ?? 'K'),
      })),
  ],
  [
    'ornament',
    new RegExp(`^A (${ORNAMENTS.join('|')}) on (.+?)(, by the same hand)?$`),
    ([, what, who, same], withSelection) =>
      withSelection(who, (select) => ({
        select,
        ornament: ORNAMENTS.find((o) => o === what) ?? 'flam',
        ...(same ? { by: SAME_HAND } : {}),
      })),
  ],
  [
    'ornament',
    /^Play (.+) without grace strokes$/,
    ([, who], withSelection) => withSelection(who, (select) => ({ select, ornament: 'none' as const })),
  ],
  [
    'voice',
    /^Send (.+) to (the .+?)( in turn)?(?:, (kick|second kick foot|hi-hat foot) under them)?(, grace strokes stay on the drum|, grace strokes with them)?$/,
    ([, who, to = '', , under, graces], withSelection) => {
      const voices = voicesOf(to);
      if (!voices) return null;
      const foot = under === undefined ? undefined : under === 'kick' ? 'K' : under.startsWith('second') ? 'J' : 'H';
      return withSelection(who, (select) => ({
        select,
        voices,
        ...(foot ? { under: foot } : {}),
        ...(graces ? { graces: graces.endsWith('drum') ? ('stay' as const) : ('go' as const) } : {}),
      }));
    },
  ],
  [
    'route',
    /^Move (.+) round (.+), on at each (.*?)changes? of hand$/,
    ([, who, stops = '', list = ''], withSelection) => routeOf(withSelection, stops, who, list, true),
  ],
  // Sizes and selectors are both lists: where the one ends and the other begins is tried from the right.
  ...[1, 2, 3, 4].map((many): Form => [
    'route',
    new RegExp(`^Move (.+) round (.+), ((?:\\d+(?:, | and )?){${many}}) at a time$`),
    ([, who, stops = '', list = ''], withSelection) => routeOf(withSelection, stops, who, list, false),
  ]),
  [
    'follow',
    new RegExp(`^The (${LIMB})(?: on the (.+?))? plays with (.+?)(?:, (ghost|tap|accent)s)?(, where it is free)?$`),
    ([, limb = '', piece, who, level, free], withSelection) => {
      const own = limbOf(limb) ?? 'R';
      const voice = piece === undefined ? (own === 'H' ? 'hat-foot' : 'kick') : voiceOf(piece);
      return voice
        ? withSelection(who, (select) => ({
            select,
            limb: own,
            voice,
            level: level ?? 'same',
            busy: free ? 'stays' : 'goes',
          }))
        : null;
    },
  ],
  [
    'layer',
    new RegExp(
      `^Add the (${LIMB})(?: on the (.+?))?(?: (ghost|accent)s)? underneath on (.+?)(?: in bar (.+?))?(?:, hands there (drop out|move))?$`,
    ),
    ([, limb = '', piece, level, when = '', bars, way]) => {
      const own = limbOf(limb) ?? 'K';
      const voice = piece === undefined ? (own === 'H' ? 'hat-foot' : 'kick') : voiceOf(piece);
      if (!voice) return null;
      const grid = parseGrid(when);
      const counts = listOf(when);
      const on =
        grid !== null
          ? { kind: 'grid', grid }
          : counts.every((c) => COUNT.test(c))
            ? { kind: 'counts', counts }
            : { kind: 'text', text: when === 'nothing' ? '' : when };
      if (on.kind === 'text' && !parseStrokeText(when).ok) return null;
      return {
        limb: own,
        voice,
        level: level ?? 'tap',
        on,
        ...(bars === undefined ? {} : { bars: listOf(bars).map(Number) }),
        clash: way === undefined ? 'keep' : way === 'move' ? 'move' : 'drop',
      } as Params;
    },
  ],
  [
    'land',
    /^Land on the next 1 with (?:the (?!kick$)(.+?)( with the left)?)?(?: and )?(the kick)?$/,
    ([, piece, left, kick]) => {
      const voice = piece === undefined ? undefined : voiceOf(piece);
      return piece !== undefined && !voice
        ? null
        : { ...(voice ? { voice } : {}), hand: left ? 'L' : 'R', kick: kick !== undefined };
    },
  ],
  ['land', /^Land on silence$/, () => ({ hand: 'R', kick: false })],
  [
    'only',
    /^Only (.+), (on its own|where it stands)$/,
    ([, who = '', how], withSelection) => {
      const params = (select: Selection): MoveParams['only'] => ({
        select,
        ...(how === 'on its own' ? {} : { stays: true as const }),
      });
      return partSaid(withSelection, who, params);
    },
  ],
  [
    'round',
    /^Hands round (.+?): ([^:,]+)(, over them too)?(, from its start behind each)?$/,
    ([, who, text = '', over, anew], withSelection) =>
      withSelection(who, (select) => ({
        select,
        text: text.trim(),
        ...(over ? { over: true as const } : {}),
        ...(anew ? { anew: true as const } : {}),
      })),
  ],
  ['reverse', /^Play (it|every group) backwards$/, ([, what]) => (what === 'it' ? {} : { by: 'group' as const })],
  [
    'linear',
    /^Make it linear: (the hands rest|the feet rest|a foot under a hand goes) .+$/,
    ([, what = '']) => ({ give: what.endsWith('goes') ? 'later' : what.includes('hands') ? 'hands' : 'feet' }),
  ],
  ['mirror', /^Swap the hands(, and the kick feet)?$/, ([, feet]) => ({ feet: feet !== undefined })],
  [
    'grid',
    /^Put it on (.+), over the same time$/,
    ([, name = '']) => {
      const params = gridParams(name, null);
      return params && { ...params, fill: true as const };
    },
  ],
  [
    'grid',
    /^Put (.+) on (.+?) in the same time, (in order|each in its place)$/,
    ([, who = '', name = '', how], withSelection) => {
      const grid = gridParams(name, null);
      const by = how === 'in order' ? ('order' as const) : ('place' as const);
      return grid && partSaid(withSelection, who, (select) => ({ ...grid, within: { select, by } }));
    },
  ],
  ['grid', /^Put it on (.+)$/, ([, name = '']) => gridParams(name, null)],
  [
    'grid',
    /^Put slots? (\d+)(?: to (\d+))? on (.+?)(?:, from (\S+) on)?$/,
    ([, from, to, name = '', on]) =>
      gridParams(name, { from: Number(from), to: Number(to ?? from), ...(on === undefined ? {} : { on }) }),
  ],
  [
    'insert',
    /^Add (.+?) behind (.+)$/,
    ([, what = '', who], withSelection) =>
      withSelection(who, (select) => ({ ...insertedText(what), where: { kind: 'behind' as const, select } })),
  ],
  [
    'insert',
    /^Add (.+?)(?: on (.+?))? (at the end|in front|after every (\d+) slots?|after (\d+) slots?)$/,
    ([, what = '', name, where = '', every, after]) => {
      const grid = name === undefined ? null : parseGrid(name);
      if (name !== undefined && grid === null) return null;
      const place =
        every !== undefined
          ? { kind: 'every', slots: Number(every) }
          : after !== undefined
            ? { kind: 'after', slot: Number(after) }
            : { kind: where === 'in front' ? 'start' : 'end' };
      return {
        text: what === 'a kick' ? 'K' : what === 'nothing' ? '' : what,
        ...(grid === null ? {} : { grid }),
        where: place,
      } as Params;
    },
  ],
  [
    'fit',
    /^Fill (\d+) (bar|beat)s?(?: from (\S+))?(?:, ending on (\S+))?(, hands swapped on every repeat)?(?:, (.+))?$/,
    ([, n, unit, start = '1', end, swapped, how = 'cut the last one']) => {
      const groups = /^in groups of (.+)$/.exec(how);
      const strokes = /^close with (.+?)(, all of it)?$/.exec(how);
      const close =
        how === 'cut the last one'
          ? { kind: 'cut' }
          : how === 'close with a rest'
            ? { kind: 'rest' }
            : groups
              ? { kind: 'groups', groups: (groups[1] ?? '').split(' + ').map(Number) }
              : strokes
                ? {
                    kind: 'strokes',
                    text: strokes[1] === 'nothing' ? '' : strokes[1],
                    ...(strokes[2] === undefined ? {} : { whole: true }),
                  }
                : null;
      if (!close) return null;
      return {
        space: unit === 'bar' ? { bars: Number(n) } : { beats: Number(n) },
        start: start.replace(/,$/, ''),
        ...(end === undefined ? {} : { end }),
        mirrored: swapped !== undefined,
        close,
      } as Params;
    },
  ],
  ['shift', /^Start on (\S+)$/, ([, start]) => ({ slots: 0, mode: 'wrap', start })],
  [
    'shift',
    /^Displace (it|every group|every (\S+) group)(?: from (\S+) on)? (\d+) slots? (later|earlier)(, cut what falls off)?$/,
    ([, what, nth, from, n, way, cut]) => {
      const groups =
        what === 'it'
          ? undefined
          : nth === undefined
            ? 1
            : nth === 'second'
              ? 2
              : nth === 'third'
                ? 3
                : parseInt(nth, 10);
      return {
        slots: way === 'later' ? Number(n) : -Number(n),
        mode: cut ? 'push' : 'wrap',
        ...(from === undefined ? {} : { from }),
        ...(groups === undefined ? {} : { groups }),
      };
    },
  ],
  [
    'restart',
    /^Start again from (\S+?)(, to the end of that bar)?$/,
    ([, at, bar]) => ({ at, until: bar ? 'bar' : 'end' }) as Params,
  ],
  [
    'pickup',
    /^Pick-up before the 1: (.+?)(?: in ([^()]+))?$/,
    ([, text, name]) => {
      const grid = name === undefined ? undefined : parseGrid(name);
      return grid === null ? null : ({ text, ...(grid === undefined ? {} : { grid }) } as Params);
    },
  ],
];

/** "a kick", "K K on 32nds": what is put in, and on which grid. */
function insertedText(said: string): { readonly text: string; readonly grid?: number } {
  const [, what = said, name] = /^(.+?) on (.+)$/.exec(said) ?? [];
  const grid = name === undefined ? null : parseGrid(name);
  const text = what === 'a kick' ? 'K' : what === 'nothing' ? '' : what;
  return grid === null ? { text } : { text, grid };
}

function gridParams(name: string, part: object | null): Params {
  const grid = parseGrid(name);
  return grid === null ? null : ({ grid, ...(part ? { part } : {}) } as Params);
}

/** Every rate there is, by its sentence. */
function rateOf(sentence: string): MoveEntry | null {
  for (let times = 1; times <= 12; times++)
    for (let per = 1; per <= 12; per++) {
      const entry = entryOf('rate', { times, by: per });
      if (describeMove(entry) === sentence) return entry;
    }
  return null;
}

const entryOf = (move: MoveName, params: unknown): MoveEntry =>
  ({ id: 'said', on: true, move, params }) as unknown as MoveEntry;

/**
 * The move that a sentence is printed for, as cards have it; null for other words. What is read prints the same
 * sentence again, letter for letter. `on` is the pattern it is applied to,
 * where places are named by their counts.
 */
export function readPrinted(sentence: string, on?: Pattern): MoveEntry | null {
  const withSelection = withSelectionOf(on);
  for (const [move, form, make] of PRINTED) {
    const found = form.exec(sentence);
    const params = found ? make(found, withSelection) : null;
    if (!params) continue;
    const entry = entryOf(move, params);
    if (describeMove(entry, on) === sentence) return entry;
  }
  return /^(?:Condense|Stretch|Make) it/.test(sentence) ? rateOf(sentence) : null;
}
