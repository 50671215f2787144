import { listed, listedUpTo, sentence } from '../../base';
import { ticks } from '../../time';
import { canStrike, isHand, usualVoice, VOICE, type Limb, type Stroke } from '../../stroke';
import { countRef, type Pattern } from '../../pattern';
import { LIMB_ADJECTIVES } from '../../selection';
import type { Edit } from './edit';

/** Places of one change that are named before it is only said how many more there are. */
const MOST_PLACES = 6;

const LEVEL_WORDS = { accent: 'accented', tap: 'played as taps', ghost: 'ghosted' } as const;

/**
 * What was changed by hand, change by change: "2& to the kick; 4e left out". Places are counted in the pattern that was
 * edited; without it, only how many strokes there are of each change.
 */
export function touchedWords(edits: readonly Edit[], on?: Pattern): string {
  if (!on) return kindsOf(edits);
  const changes = new Map<string, string[]>();
  const add = (what: string, place: string): void => void changes.set(what, [...(changes.get(what) ?? []), place]);
  for (const at of [...new Set(edits.map((e) => e.at))].sort((a, b) => a - b)) {
    const own = edits.filter((e) => e.at === at);
    const before = on.strokes.filter((s) => s.at === at);
    const place = countRef(on, at);
    for (const [what, limb] of changesAt(own, before))
      add(what, limb === null ? place : `${LIMB_ADJECTIVES[limb]} on ${place}`);
  }
  if (changes.size === 0) return 'By hand: nothing changes here';
  const all = [...changes].map(([what, places]) => {
    const named = listedUpTo(places, MOST_PLACES);
    return what.startsWith('a ') ? `${what} on ${named}` : `${named} ${what}`;
  });
  return sentence(all.join('; '));
}

/** Which kinds of change there are, where their places have no names. */
function kindsOf(edits: readonly Edit[]): string {
  const kinds = edits.flatMap((e) => {
    const { stroke, only, limb } = e;
    if (!stroke) return ['strokes left out'];
    if (only === undefined) return [addedWords(e)];
    const was: Stroke = { at: ticks(e.at), limb, voice: usualVoice(limb), level: 'tap', from: NOWHERE };
    return changed(e, [was], false).map(([what]) => `strokes ${what}`);
  });
  return `By hand: ${listed([...new Set(kinds)])}`;
}
const NOWHERE = { index: 0, repeat: 0, move: null };

type Change = readonly [what: string, limb: Limb | null];

/** What becomes of one place; with the limb where several play there. */
function changesAt(edits: readonly Edit[], before: readonly Stroke[]): readonly Change[] {
  const gone = edits.filter((e) => e.stroke === null && before.some((s) => s.limb === e.limb));
  const come = edits.filter((e) => e.stroke !== null && !before.some((s) => s.limb === e.limb));
  const [left, taken] = [gone[0], come[0]];
  const several = before.length > 1;
  // One limb goes and another comes: it is handed over.
  if (left && taken && gone.length === 1 && come.length === 1 && before.length > 0) {
    const voice = taken.stroke?.voice;
    const foot = !isHand(taken.limb);
    const piece = !foot && voice && voice !== usualVoice(taken.limb) ? ` on the ${VOICE[voice].name}` : '';
    const was = before.find((s) => s.limb === left.limb)?.level;
    const level = taken.stroke && was && taken.stroke.level !== was ? `, ${LEVEL_WORDS[taken.stroke.level]}` : '';
    return [
      [`to the ${LIMB_ADJECTIVES[taken.limb]}${foot ? '' : ' hand'}${piece}${level}`, several ? left.limb : null],
      ...edits.flatMap((e) => changed(e, before, several)),
    ];
  }
  return [
    ...gone.map((e): Change => ['left out', several ? e.limb : null]),
    ...come.map((e): Change => [`a ${addedWords(e)}`, null]),
    ...edits.flatMap((e) => changed(e, before, several)),
  ];
}

function addedWords({ limb, stroke }: Edit): string {
  const voice = stroke?.voice && canStrike(limb, stroke.voice) ? stroke.voice : usualVoice(limb);
  const level = stroke?.level === 'tap' || !stroke ? '' : `${stroke.level === 'accent' ? 'loud' : 'soft'} `;
  const graced = stroke?.ornament && isHand(limb) ? ` with a ${stroke.ornament}` : '';
  return `${level}${LIMB_ADJECTIVES[limb]}${isHand(limb) ? ` on the ${VOICE[voice].name}` : ''}${graced}`.replace(
    / on the snare(?= with|$)/,
    '',
  );
}

/** How a stroke that stays is changed. */
function changed({ limb, stroke, only }: Edit, before: readonly Stroke[], several: boolean): readonly Change[] {
  const was = before.find((s) => s.limb === limb);
  if (!was || !stroke) return [];
  const about = (matter: NonNullable<Edit['only']>): boolean => only === undefined || only === matter;
  const all: string[] = [];
  if (about('level') && stroke.level !== was.level) all.push(LEVEL_WORDS[stroke.level]);
  if (about('voice') && stroke.voice && stroke.voice !== was.voice) all.push(`to the ${VOICE[stroke.voice].name}`);
  if (about('ornament') && isHand(limb) && stroke.ornament !== was.ornament)
    all.push(stroke.ornament ? `with a ${stroke.ornament}` : `without the ${was.ornament ?? 'ornament'}`);
  return all.map((what): Change => [what, several ? limb : null]);
}
