import { PLAYED_MARKS, playedBy, stageTitle, type Attempt } from '@core/drill';
import type { Cell } from '@core/formats/csv';
import { LIMB_WORDS, VOICE } from '@core/stroke';
import { findingWords, timingWords, type KeptTake } from '@core/take';

/** What a try’s measurements came to: "4 ms early, spread 9 ms, 1 missed", or that it was judged by ear. */
export function measuredWords({ measured }: Attempt): string {
  if (!measured) return 'by ear';
  return `${timingWords(measured.mean, measured.spread)}${measured.missed > 0 ? `, ${measured.missed} missed` : ''}`;
}

/** What was drilled in a try: a stage, or the whole. */
export function triedWords({ drilled }: Attempt): string {
  return drilled ? stageTitle(drilled) : 'whole';
}

/** How a try is marked that the player did not play on a drum; empty for the player's own. */
export const markOf = (attempt: Attempt): string => PLAYED_MARKS[playedBy(attempt)];

/** What there was to fix in a try; empty where there was nothing, or nothing was measured. */
export function fixWords({ measured }: Attempt): string {
  return measured?.finding ? findingWords(measured.finding) : '';
}

/** Tries as rows under a head that names the units. */
export function triesCsv(tries: readonly Attempt[]): readonly (readonly Cell[])[] {
  const head = [
    'When (UTC)',
    'Tempo (bpm)',
    'Goal (bpm)',
    'Verdict',
    'Played by',
    'Stage',
    'Loops',
    'Seconds',
    'Offset (ms)',
    'Spread (ms)',
    'Missed',
    'To fix',
    'Note',
  ];
  const rows = tries.map((t) => [
    new Date(t.at).toISOString(),
    t.bpm,
    t.goal,
    t.verdict,
    PLAYED_MARKS[playedBy(t)] || 'you',
    triedWords(t),
    t.loops,
    t.seconds,
    t.measured?.mean ?? null,
    t.measured?.spread ?? null,
    t.measured?.missed ?? null,
    fixWords(t),
    t.note ?? '',
  ]);
  return [head, ...rows];
}

/** The hits of a take as rows under a head that names the units. */
export function hitsCsv({ hits }: KeptTake): readonly (readonly Cell[])[] {
  const head = ['Time from the first bar line (ms)', 'Limb', 'Struck', 'Velocity (1-127)'];
  const rows = hits.map((h) => [
    Math.round(h.seconds * 10_000) / 10,
    h.limb ? LIMB_WORDS[h.limb] : '',
    h.voice ? VOICE[h.voice].name : '',
    h.velocity,
  ]);
  return [head, ...rows];
}
