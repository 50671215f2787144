import { Type, type Static } from '@sinclair/typebox';
import { listed, mod } from '../../base';
import { barTicks, beatTicks, gridName, parseCount, ticks, USUAL_SCHOOLS } from '../../time';
import {
  canStrike,
  isHand,
  LEVELS,
  LIMB_WORDS,
  LIMBS,
  otherHand,
  VOICE,
  VOICES,
  type Level,
  type Limb,
  type Stroke,
  type Voice,
} from '../../stroke';
import { countingOf, placesWords, tidy, type Pattern } from '../../pattern';
import { done, finding, passes, type Move } from './move';
import { readSlots, TextSchema } from './text-param';

export const LayerParams = Type.Object({
  limb: Type.Unsafe<Limb>({ type: 'string', enum: [...LIMBS] }),
  voice: Type.Unsafe<Voice>({ type: 'string', enum: [...VOICES] }),
  level: Type.Unsafe<Level>({ type: 'string', enum: [...LEVELS] }),
  /** On every slot of a grid, on counts of every bar, or as a stroke text on the home grid that comes round. */
  on: Type.Union([
    Type.Object({ kind: Type.Literal('grid'), grid: Type.Integer({ minimum: 105, maximum: 20160 }) }),
    Type.Object({
      kind: Type.Literal('counts'),
      counts: Type.Array(Type.String({ maxLength: 16 }), { minItems: 1, maxItems: 32 }),
    }),
    Type.Object({ kind: Type.Literal('text'), text: TextSchema }),
  ]),
  /** Bars it plays in; absent for all. */
  bars: Type.Optional(Type.Array(Type.Integer({ minimum: 1, maximum: 64 }), { maxItems: 64 })),
  /** Hands that strike at the same time: keep, drop, or move to the other hand or the next free slot. */
  clash: Type.Union([Type.Literal('keep'), Type.Literal('drop'), Type.Literal('move')]),
});
type Params = Static<typeof LayerParams>;

/** Ticks of the pattern at which the layer plays, or what is wrong with the text. */
function moments(pattern: Pattern, { on, bars }: Params): number[] | { readonly wrong: string } {
  const bar = barTicks(pattern.meter);
  const inBars = (t: number): boolean => !bars || bars.includes(Math.floor((pattern.start + t) / bar) + 1);
  const all = Array.from(
    { length: Math.ceil(pattern.length) === 0 ? 0 : Math.ceil(pattern.length / stepOf(pattern, on)) + 1 },
    (_, i) => i,
  );
  switch (on.kind) {
    case 'grid': {
      const first = mod(on.grid - (pattern.start % on.grid), on.grid);
      return all.map((i) => first + i * on.grid).filter((t) => t < pattern.length && inBars(t));
    }
    case 'counts': {
      const wanted = on.counts.flatMap((c) => parseCount(c, countingOf(pattern, USUAL_SCHOOLS)) ?? []);
      const barsOver = Math.ceil((pattern.start + pattern.length) / bar);
      return Array.from({ length: barsOver }, (_, b) => wanted.map((w) => mod(w, bar) + b * bar - pattern.start))
        .flat()
        .filter((t) => t >= 0 && t < pattern.length && inBars(t));
    }
    case 'text': {
      const read = readSlots(on.text);
      if ('wrong' in read) return read;
      return all
        .filter((i) => (read.slots[i % read.slots.length]?.length ?? 0) > 0)
        .map((i) => i * pattern.grid)
        .filter((t) => t < pattern.length && inBars(t));
    }
  }
}

function stepOf(pattern: Pattern, on: Params['on']): number {
  return on.kind === 'grid' ? on.grid : pattern.grid;
}

/** What becomes of the strokes already there. `lost` are those that found no place. */
function giveWay(
  pattern: Pattern,
  at: ReadonlySet<number>,
  { limb, clash }: Params,
): { strokes: Stroke[]; lost: Stroke[] } {
  const meets = (s: Stroke): boolean => at.has(s.at) && (s.limb === limb || isHand(s.limb));
  if (clash === 'keep') return { strokes: [...pattern.strokes], lost: [] };
  const stays = pattern.strokes.filter((s) => !meets(s));
  if (clash === 'drop') return { strokes: stays, lost: [] };
  const taken = new Set([...stays.map((s) => `${s.at}${s.limb}`), ...[...at].map((t) => `${t}${limb}`)]);
  const lost: Stroke[] = [];
  const strokes = [...stays];
  for (const s of pattern.strokes.filter(meets)) {
    const next = ticks(s.at + pattern.grid);
    const places: Stroke[] = [
      // A hand whose own place is taken can be played by the other; one that should get out of a foot's way goes a slot
      // on.
      ...(s.limb === limb ? [{ ...s, limb: otherHand(s.limb) }] : []),
      ...(next < pattern.length && !at.has(next) ? [{ ...s, at: next }] : []),
    ];
    const place = places.find((p) => !taken.has(`${p.at}${p.limb}`));
    if (place) {
      taken.add(`${place.at}${place.limb}`);
      strokes.push(place);
    } else lost.push(s);
  }
  return { strokes, lost };
}

/** A steady foot, a backbeat or a given kick pattern under what is there. */
export const layer: Move<'layer', Params> = {
  name: 'layer',
  title: 'Add a part underneath',
  hint: 'A steady foot, a backbeat, a kick pattern, time on the hat.',
  schema: LayerParams,
  whole: true,
  defaults: (pattern) => ({
    limb: 'H',
    voice: 'hat-foot',
    level: 'tap',
    on: { kind: 'grid', grid: beatTicks(pattern.meter) },
    clash: 'keep',
  }),
  describe: ({ limb, voice, level, on, bars, clash }) => {
    const when =
      on.kind === 'grid' ? gridName(on.grid) : on.kind === 'counts' ? listed(on.counts) : on.text.trim() || 'nothing';
    const where = bars?.length ? ` in bar ${listed(bars.map(String))}` : '';
    const way = clash === 'keep' ? '' : clash === 'drop' ? ', hands there drop out' : ', hands there move';
    const how = level === 'tap' ? '' : ` ${level}s`;
    return `Add the ${isHand(limb) ? `${LIMB_WORDS[limb]} on the ${VOICE[voice].name}` : LIMB_WORDS[limb]}${how} underneath on ${when}${where}${way}`;
  },
  apply: (pattern, params, { id }) => {
    const { limb, voice, level } = params;
    if (!canStrike(limb, voice))
      return passes(pattern, 'bad-voice', `The ${LIMB_WORDS[limb]} does not play the ${VOICE[voice].name}.`);
    const at = moments(pattern, params);
    if ('wrong' in at) return passes(pattern, 'bad-text', at.wrong);
    if (at.length === 0)
      return passes(pattern, 'nothing-chosen', 'None of these places is inside the phrase, so nothing is added.');
    const own = new Set(
      params.clash === 'keep' ? pattern.strokes.filter((s) => s.limb === limb).map((s) => s.at as number) : [],
    );
    const { strokes, lost } = giveWay(pattern, new Set(at), params);
    const added = at
      .filter((t) => !own.has(t))
      .map((t): Stroke => ({
        at: ticks(t),
        limb,
        voice,
        level,
        from: { index: Math.floor(t / pattern.grid), repeat: 0, move: id },
      }));
    const there = new Set(strokes.filter((s) => s.limb !== limb).map((s) => s.at as number));
    const together = added.filter((s) => there.has(s.at)).map((s) => s.at);
    const findings = [
      ...(together.length > 0
        ? [
            finding(
              'unison',
              'check',
              `Together with the ${LIMB_WORDS[limb]}: ${placesWords(pattern, together, USUAL_SCHOOLS)}.`,
              together,
            ),
          ]
        : []),
      ...(lost.length > 0
        ? [
            finding(
              'cut',
              'check',
              `No free place for the strokes on ${placesWords(
                pattern,
                lost.map((s) => s.at),
                USUAL_SCHOOLS,
              )}: left out.`,
            ),
          ]
        : []),
    ];
    return done(tidy({ ...pattern, strokes: [...strokes, ...added] }), findings);
  },
};
