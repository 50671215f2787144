import { Type, type Static } from '@sinclair/typebox';
import { count } from '../../base';
import { ticks } from '../../time';
import { canStrike, isHand, SAME_HAND, usualVoice, type Grace, type Ornament, type Stroke } from '../../stroke';
import { tidy } from '../../pattern';
import { EditSchema, type Edit, type Matter } from './edit';
import { done, finding, passes, type Move } from './move';
import { touchedWords } from './touched-words';

export const TouchParams = Type.Object({ edits: Type.Array(EditSchema, { maxItems: 4096 }) });
type Params = Static<typeof TouchParams>;

/** One matter of a stroke as an edit asks for it; all else stays. */
export function amended(before: Stroke, stroke: NonNullable<Edit['stroke']>, only: Matter): Stroke {
  const { ornament, grace, ...plain } = before;
  const graced = { ...(ornament ? { ornament } : {}), ...(grace ? { grace } : {}) };
  switch (only) {
    case 'level':
      return { ...before, level: stroke.level };
    case 'voice': {
      const voice = stroke.voice && canStrike(before.limb, stroke.voice) ? stroke.voice : before.voice;
      return { ...plain, voice, ...(ornament ? { ornament, ...graceOf(ornament, stroke.grace ?? grace) } : {}) };
    }
    case 'ornament':
      if (!isHand(before.limb)) return { ...plain, ...graced };
      return stroke.ornament ? { ...plain, ornament: stroke.ornament, ...graceOf(stroke.ornament, grace) } : plain;
  }
}

function graceOf(ornament: Ornament, grace: Grace | undefined): { grace?: Grace } {
  const plays = grace === SAME_HAND || (grace && canStrike('R', grace));
  return plays && ornament !== 'buzz' ? { grace } : {};
}

/** The stroke an edit asks for: what is not said stays as it was, or is the limb's usual. */
function edited(edit: Edit, before: Stroke | undefined, slot: number, id: string): Stroke | null {
  const { at, limb, stroke, only } = edit;
  if (!stroke) return null;
  if (only) return before ? amended(before, stroke, only) : null;
  const wanted = stroke.voice ?? before?.voice ?? usualVoice(limb);
  const from = before?.from ?? { index: Math.floor(at / slot), repeat: 0, move: id };
  const voice = canStrike(limb, wanted) ? wanted : usualVoice(limb);
  return {
    at: ticks(at),
    limb,
    voice,
    level: stroke.level,
    from,
    ...(stroke.ornament && isHand(limb)
      ? { ornament: stroke.ornament, ...graceOf(stroke.ornament, stroke.grace ?? before?.grace) }
      : {}),
  };
}

/** Edits made by hand on the drawing, kept as a move of their own. */
export const touch: Move<'touch', Params> = {
  name: 'touch',
  title: 'Edit by hand',
  hint: 'Single strokes you changed on the ribbon.',
  schema: TouchParams,
  defaults: (pattern) => {
    const first = pattern.strokes[0];
    return {
      edits: first
        ? [{ at: first.at, limb: first.limb, stroke: { level: first.level === 'accent' ? 'tap' : 'accent' } }]
        : [],
    };
  },
  describe: ({ edits }, on) => (edits.length === 0 ? 'Nothing edited by hand yet' : touchedWords(edits, on)),
  apply: (pattern, { edits }, { id }) => {
    const inside = edits.filter((e) => e.at < pattern.length);
    const outside = edits.length - inside.length;
    if (edits.length > 0 && inside.length === 0)
      return passes(
        pattern,
        'does-not-fit',
        `${count(outside, 'edit')} lie after the end of the phrase now, so nothing changes.`,
      );
    const strokes = new Map(pattern.strokes.map((s) => [`${s.at}${s.limb}`, s]));
    for (const edit of inside) {
      const key = `${edit.at}${edit.limb}`;
      const next = edited(edit, strokes.get(key), pattern.grid, id);
      if (next) strokes.set(key, next);
      else strokes.delete(key);
    }
    return done(
      tidy({ ...pattern, strokes: [...strokes.values()] }),
      outside > 0
        ? [finding('does-not-fit', 'check', `${count(outside, 'edit')} lie after the end of the phrase now.`)]
        : [],
    );
  },
};
