import fc from 'fast-check';
import { GRID, meter, TICKS_PER_QUARTER } from '../time';
import { graceCount, otherHand, parseStrokeText, SAME_HAND, VOICE, type Grace, type Stroke } from '../stroke';
import { anyBuilt } from '../testing/arbitraries';
import { gracesOf, loopTicks, patternOfText, plainGraces, withGraces, type Pattern } from '.';

const pattern = (text: string, grid = GRID.sixteenths): Pattern => {
  const read = parseStrokeText(text);
  return patternOfText(read.ok ? read.value : [], meter(4, 4), grid);
};
/** Which hand strikes what, for every stroke with grace strokes. */
const told = (p: Pattern): string =>
  withGraces(p)
    .strokes.flatMap((s) => {
      const g = gracesOf(s);
      return g ? [`${g.limb} ${g.voice}`] : [];
    })
    .join(', ');

describe('grace strokes', () => {
  it.each([
    ['the other hand, on the drum both are on', 'fR L R L', 'L snare'],
    ['the right has gone to the ride: the left stays where it is', 'fR[ride] L R[ride] L', 'L snare'],
    ['wherever it is', 'fR[ride] L[high tom] R[mid tom] L[floor tom]', 'L floor tom'],
    ['a hand that rode comes down for it', 'R![right crash] - - - - - - - fL R', 'R snare'],
    [
      'a hand that was elsewhere long ago is at the stroke',
      'L[floor tom] - - - - - - - R[snare] - - - fR -',
      'L snare',
    ],
    ['a hand that plays nothing else is at the stroke', 'fR[floor tom] R R R', 'L floor tom'],
    ['told, it is what was told', 'f[mid tom]R[ride] L R[ride] L', 'L mid tom'],
    ['told to be on the stroke’s own', 'f[ride]R[ride] L R[ride] L', 'L ride'],
    [
      'where the other hand keeps time the same plays all of it',
      'R[hat] dL R[hat] - R[hat] dL R[open hat] -',
      'L snare, L snare',
    ],
    ['where the other strikes at that moment, too', 'R[hat]+dL - R[hat] -', 'L snare'],
    ['but a flam takes both', 'R[hat] fL R[hat] - R[hat] fL R[open hat] -', 'R snare, R snare'],
    ['by choice', 'd[same hand]R L R L', 'R snare'],
    ['a cymbal now and then is no time', 'R[right crash] L - - - - - - dL - - - - - - -', 'R snare'],
    ['drags of both hands on one drum', 'dR dL dR dL', 'L snare, R snare, L snare, R snare'],
    ['a buzz has none', 'zR L', ''],
  ])('%s: %s', (_, text, words) => expect(told(pattern(text)).replaceAll('-', ' ')).toBe(words));

  it('are found with plain loops over three turns as well', () => {
    fc.assert(
      fc.property(anyBuilt, ({ pickup: _, ...p }) => {
        if (p.strokes.length > 200) return;
        expect(withGraces(p).strokes.map((s) => s.grace)).toEqual(p.strokes.map((s) => plainly(p, s)));
      }),
      { numRuns: 200 },
    );
  });
  it('written out once they stay, and what needs not be said is left out again', () => {
    fc.assert(
      fc.property(anyBuilt, (p) => {
        const out = withGraces(p);
        expect(withGraces(out)).toEqual(out);
        const { strokes } = withGraces(plainGraces(p));
        expect(strokes.map((s) => gracesOf(s))).toEqual(out.strokes.map((s) => gracesOf(s)));
      }),
      { numRuns: 150 },
    );
  });
});

function plainly(p: Pattern, s: Stroke): Grace | undefined {
  if (!s.ornament || graceCount(s.ornament) === 0 || (s.limb !== 'R' && s.limb !== 'L')) return s.grace;
  const loop = loopTicks(p);
  const other = [-1, 0, 1].flatMap((turn) =>
    p.strokes
      .filter((o) => o.limb === otherHand(s.limb))
      .map((o) => ({ voice: o.voice, off: o.at + turn * loop - s.at })),
  );
  if (s.grace === SAME_HAND || other.some((o) => o.off === 0)) return SAME_HAND;
  if (s.grace && s.grace !== s.voice) return s.grace;
  const near = other.filter((o) => Math.abs(o.off) <= TICKS_PER_QUARTER).sort((a, b) => a.off - b.off);
  const last = near.filter((o) => o.off < 0).at(-1);
  const next = near.find((o) => o.off > 0);
  const metal = (v: Stroke['voice']): boolean => VOICE[v].family === 'metal';
  const away = (o: typeof last): boolean => !!o && metal(o.voice) && VOICE[o.voice].piece !== VOICE[s.voice].piece;
  if (away(last) && away(next) && s.ornament !== 'flam') return SAME_HAND;
  if (s.grace) return s.grace;
  if (!last || (metal(last.voice) && !metal(s.voice))) return s.voice;
  return last.voice;
}
