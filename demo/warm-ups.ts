import { GRID } from '@core/time';
import { typed, rudiment, bars, send, grid, lay, then, phrase, type DemoPhrase } from './written';

/** What is played before the show. */
export const WARM_UPS: readonly DemoPhrase[] = [
  phrase(
    'warm-up',
    'Even keel',
    [120, 150],
    'Two minutes before anything else.',
    rudiment('single-paradiddle'),
    bars(2),
  ),
  phrase(
    'warm-up',
    'Gull wings',
    [110, 140],
    'Accents high, everything else at three centimetres.',
    typed('R! r r L! l l', '4/4', GRID.triplets),
    bars(2),
  ),
  phrase(
    'warm-up',
    'Slow swell',
    [60, 84],
    'Open roll; listen to the second stroke.',
    rudiment('double-stroke-open-roll'),
    bars(1),
  ),
  phrase('warm-up', 'Net knots', [80, 104], 'Flams, both hands alike.', rudiment('flam-paradiddle'), bars(2)),
  phrase(
    'warm-up',
    'Oars in sixes',
    [72, 96],
    'Six stroke roll, accents from the wrist.',
    rudiment('six-stroke-roll'),
    bars(1),
    grid(GRID.thirtySeconds),
    send({ limbs: ['R'], levels: ['accent'] }, ['high-tom']),
  ),
  phrase(
    'warm-up',
    'Six locks',
    [90, 120],
    'Singles, then doubles, then both mixed: six bars without a change of height.',
    typed('R L R L'),
    bars(2),
    then('doubles', 'R R L L', 2),
    then('mixed', 'R L R R L R L L', 2),
  ),
  phrase(
    'warm-up',
    'Foot of the stairs',
    [80, 110],
    'Hands even, feet even, nothing else.',
    typed('R L'),
    bars(1),
    lay('K', { kind: 'grid', grid: GRID.quarters }),
    lay('H', { kind: 'counts', counts: ['2', '4'] }),
  ),
];
