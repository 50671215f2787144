import { GRID, parseMeter, type Ticks } from '../time';
import { isHand, parseStrokeText, type Limb, type Voice } from '../stroke';
import { patternOfText, type Pattern } from '../pattern';
import { KIT_PRESETS, type Kit } from '../kit';
import table from '../testing/feats.json';
import { ceilingOn, USUAL_PROFILE } from '.';

interface Feat {
  readonly name: string;
  readonly text: string;
  readonly meter: string;
  readonly grid: string;
  readonly kit: string;
  readonly floor: number;
  readonly cap: number;
  readonly voices?: Partial<Record<Limb, Voice>>;
  readonly each?: readonly Voice[];
}
const GRIDS: Readonly<Record<string, Ticks>> = {
  eighths: GRID.eighths,
  triplets: GRID.triplets,
  '16ths': GRID.sixteenths,
  sextuplets: GRID.sextuplets,
  '32nds': GRID.thirtySeconds,
};

function patternOf({ text, meter, grid, voices = {}, each }: Feat): Pattern {
  const read = parseStrokeText(text);
  if (!read.ok) throw new Error(text);
  const pattern = patternOfText(read.value, parseMeter(meter)!, GRIDS[grid]!);
  let hand = 0;
  return {
    ...pattern,
    strokes: pattern.strokes.map((s) => {
      const own = isHand(s.limb) ? each?.[hand++] : undefined;
      return { ...s, voice: own ?? voices[s.limb] ?? s.voice };
    }),
  };
}
const kitOf = (name: string): Kit => KIT_PRESETS.find((k) => k.name === name)!;

describe('what working drummers do, and what nobody does', () => {
  it.each((table.feats as readonly Feat[]).map((f) => [f.name, f] as const))('%s', (_, feat) => {
    const { bpm, pairs } = ceilingOn(patternOf(feat), kitOf(feat.kit), USUAL_PROFILE);
    if (process.env['TELL'])
      console.log(
        `${feat.name}: ${bpm?.toFixed(0)} of ${feat.floor}–${feat.cap} ${pairs[0]?.why} ${pairs[0]?.need.toFixed(3)}`,
      );
    expect(bpm).toBeGreaterThanOrEqual(feat.floor);
    expect(bpm).toBeLessThanOrEqual(feat.cap);
  });
});
