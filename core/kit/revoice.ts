import { count } from '../base';
import { isHand, SAME_HAND, VOICE, VOICES, voicesNamed, type Stroke, type Voice } from '../stroke';
import { changedAll, tidy, withGraces, type Finding, type Pattern } from '../pattern';
import { isPad, pieceFor, type Kit } from './kit';

export interface Revoiced {
  readonly pattern: Pattern;
  readonly findings: readonly Finding[];
}

/** What sounds instead of a voice on a kit: itself when the kit has it, else the nearest substitute, else null. */
export function voiceOn(kit: Kit, voice: Voice): Voice | null {
  if (pieceFor(kit, voice)) return voice;
  const family = VOICE[voice].family;
  if (family === 'foot') return null;
  if (isPad(kit)) return 'snare';
  const listed = voicesNamed(VOICE[voice].substitutes).find((v) => pieceFor(kit, v));
  // Whatever there is, of the same family first.
  const any = [...VOICES].sort((a, b) => Number(VOICE[b].family === family) - Number(VOICE[a].family === family));
  return listed ?? any.find((v) => VOICE[v].family !== 'foot' && pieceFor(kit, v)) ?? null;
}

/**
 * A phrase as it sounds on a kit. The phrase itself is not changed: on the kit it was written for it is the same again.
 * Strokes of hands go to the nearest substitute; feet without a pedal are tapped on nothing, so they are left out. Each
 * change is a finding.
 */
export function revoice(written: Pattern, kit: Kit): Revoiced {
  // Where a kit lacks a cymbal a hand keeps time on another piece, and is as busy there.
  const pattern = withGraces(written);
  const all = [...pattern.strokes, ...(pattern.pickup ?? [])];
  const used = [...new Set(all.flatMap((s) => (s.grace && s.grace !== SAME_HAND ? [s.voice, s.grace] : [s.voice])))];
  const change = new Map(used.map((v) => [v, footless(kit, v) ? null : voiceOn(kit, v)]));
  if ([...change].every(([from, to]) => from === to) && !all.some((s) => s.limb === 'J' && kit.feet.J === null))
    return { pattern: written, findings: [] };
  const sent = (s: Stroke): Stroke[] => {
    const to = change.get(s.voice);
    if (to === null || to === undefined) return [];
    // Without a second pedal the one kick foot takes over where it is free; `tidy` keeps one stroke to a limb and tick.
    if (s.limb === 'J' && kit.feet.J === null) return [{ ...s, limb: 'K', voice: to }];
    const grace = s.grace === SAME_HAND ? SAME_HAND : s.grace && change.get(s.grace);
    if (to === s.voice && (grace ?? undefined) === s.grace) return [s];
    const { grace: _, ...bare } = s;
    return [{ ...bare, voice: to, ...(grace ? { grace } : {}) }];
  };
  return {
    pattern: tidy(changedAll(pattern, (strokes) => strokes.flatMap(sent))),
    findings: findingsOf({ ...pattern, strokes: all }, change, kit),
  };
}

function footless(kit: Kit, voice: Voice): boolean {
  return voice === 'hat-foot' && kit.feet.H === null;
}

function findingsOf(pattern: Pattern, change: ReadonlyMap<Voice, Voice | null>, kit: Kit): Finding[] {
  const said = [...change].flatMap(([from, to]): Finding[] => {
    const own = pattern.strokes.filter((s) => s.voice === from);
    if (from === to) return [];
    if (own.length === 0) {
      const graced = pattern.strokes.filter((s) => s.grace === from).map((s) => s.at);
      const where = to === null ? 'with their stroke' : `to the ${isPad(kit) ? 'pad' : VOICE[to].name}`;
      const words = `No ${VOICE[from].name} on “${kit.name}”: grace strokes go ${where}.`;
      return [{ code: 'revoiced', weight: 'note', words, at: [...new Set(graced)] }];
    }
    const at = [...new Set(own.map((s) => s.at))];
    if (to === null) {
      const left = VOICE[from].family === 'foot' && pattern.strokes.some((s) => isHand(s.limb));
      return [
        {
          code: 'revoiced',
          weight: 'note',
          words: `No ${VOICE[from].name} on “${kit.name}”: ${count(own.length, 'stroke')} ${left ? 'left to the hi-hat foot' : 'not heard'}.`,
          at,
        },
      ];
    }
    const many =
      own.length === 1 ? 'its stroke goes' : own.length === 2 ? 'both strokes go' : `its ${own.length} strokes go`;
    return [
      {
        code: 'revoiced',
        weight: 'note',
        words: `No ${VOICE[from].name} on “${kit.name}”: ${many} to the ${isPad(kit) ? 'pad' : VOICE[to].name}.`,
        at,
      },
    ];
  });
  const second = pattern.strokes.filter((s) => s.limb === 'J');
  if (second.length > 0 && kit.feet.J === null)
    said.push({
      code: 'revoiced',
      weight: 'check',
      words: `No second pedal on “${kit.name}”: one foot plays both kicks.`,
      at: second.map((s) => s.at),
    });
  return said;
}
