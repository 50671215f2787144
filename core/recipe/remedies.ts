import { listed } from '../base';
import { barTicks, USUAL_SCHOOLS } from '../time';
import { isHand, LIMBS, usualVoice } from '../stroke';
import { meantTogether, placesWords, placeWords, type Finding } from '../pattern';
import { describeStrokes, LIMB_ADJECTIVES } from '../selection';
import type { Build } from './build';
import { offerOf, type Offer } from './offer';

/**
 * What would mend a finding, as moves with their sentences; empty where nothing does or nothing needs mending. A remedy
 * is offered, never applied.
 */
export function remediesFor(finding: Finding, built: Build, schools = USUAL_SCHOOLS): readonly Offer[] {
  const { pattern } = built;
  switch (finding.code) {
    case 'unison': {
      // A grace stroke sounds with its own stroke alone: there is nothing to leave out.
      const at = (finding.at ?? []).filter((t) => {
        const own = pattern.strokes.filter((s) => s.at === t);
        return own.length > 1 && !meantTogether(own);
      });
      const together = pattern.strokes.flatMap((s, i) => (at.includes(s.at) ? [{ limb: s.limb, i }] : []));
      if (together.length === 0) return [];
      const feet = together.filter((s) => !isHand(s.limb));
      const less = (feet.length > 0 ? feet : together.filter((s) => s.limb === 'L')).map((s) => s.i);
      const which = feet.length > 0 ? feet.map((s) => s.i) : less;
      const limbs = LIMBS.filter((l) => which.some((i) => pattern.strokes[i]?.limb === l));
      // By count and limb, as a player says it, and not by how the strokes are chosen.
      const places = [...new Set(which.flatMap((i) => pattern.strokes[i]?.at ?? []))];
      const on =
        places.length === 1 ? placeWords(pattern, places[0] ?? 0, schools) : placesWords(pattern, places, schools);
      const words = `Leave out the ${listed(limbs.map((l) => LIMB_ADJECTIVES[l]))} on ${on}`;
      return [{ ...offerOf('drop', { select: describeStrokes(pattern, which) }), words }];
    }
    case 'fit': {
      // What is left over after whole repeats can be closed by singles, led by the hand that did not end the last
      // repeat.
      const rest = pattern.groups.at(-1);
      const bar = barTicks(pattern.meter);
      if (pattern.length % bar !== 0 && pattern.groups.length === 1 && pattern.length < bar)
        return [offerOf('fit', { space: { bars: 1 }, start: '1', mirrored: false, close: { kind: 'cut' } }, pattern)];
      const empty = rest?.kind === 'close' && !pattern.strokes.some((s) => s.at >= rest.at);
      if (!rest || !empty) return [];
      const slots = Math.round(rest.length / pattern.grid);
      const before = pattern.strokes.filter((s) => s.at < rest.at && isHand(s.limb)).at(-1)?.limb;
      const first = before === 'R' ? 'L' : 'R';
      return [
        {
          ...offerOf('touch', {
            edits: Array.from({ length: Math.min(slots, 64) }, (_, i) => {
              const limb = i % 2 === 0 ? first : first === 'R' ? 'L' : 'R';
              return {
                at: rest.at + i * pattern.grid,
                limb,
                stroke: { level: 'tap' as const, voice: usualVoice(limb) },
              };
            }),
          }),
          words: 'Close it with singles',
        },
      ];
    }
    default:
      return [];
  }
}
