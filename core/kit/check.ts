import { listed } from '../base';
import { VOICE } from '../stroke';
import type { Kit } from './kit';

/** Something about a kit that its owner would want to know, in words; with the pieces it speaks of. */
export interface KitFinding {
  readonly words: string;
  readonly pieces: readonly string[];
}

/**
 * How much of the smaller of two discs may lie under the other before they are said to be on top of each other, when
 * their heights are this near, in cm.
 */
const OVERLAP = 0.6;
const NEAR_HEIGHT = 8;

/**
 * What cannot be right about a kit: no drum, pieces on top of each other, two pieces for one voice. Sentences, never a
 * refusal: a drummer may try things out.
 */
export function checkKit(kit: Kit): readonly KitFinding[] {
  const findings: KitFinding[] = [];
  if (kit.pieces.length === 0) return [{ words: 'The kit is empty. Add a piece, or start from a preset.', pieces: [] }];
  if (!kit.pieces.some((p) => p.voices.some((v) => VOICE[v].family === 'skin')))
    findings.push({ words: 'There is no drum for the hands. Add one.', pieces: [] });
  kit.pieces.forEach((a, i) => {
    for (const b of kit.pieces.slice(i + 1)) {
      const distance = Math.hypot(a.x - b.x, a.y - b.y);
      const covered = (a.diameter + b.diameter) / 2 - distance;
      if (a.kind === 'kick' || b.kind === 'kick') continue;
      if (Math.abs(a.z - b.z) < NEAR_HEIGHT && covered > OVERLAP * Math.min(a.diameter, b.diameter))
        findings.push({ words: `${a.name} and ${b.name} are on top of each other. Move one.`, pieces: [a.id, b.id] });
      const shared = a.voices.filter((v) => b.voices.includes(v));
      if (shared.length > 0)
        findings.push({
          words: `${a.name} and ${b.name} both sound the ${listed(shared.map((v) => VOICE[v].name))}; the nearer one is used.`,
          pieces: [a.id, b.id],
        });
    }
  });
  return findings;
}
