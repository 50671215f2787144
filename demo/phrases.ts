import { GRID, meterText } from '@core/time';
import type { Family, MoveEntry, MoveName, MoveParams, Source } from '@core/recipe';
import { rudimentById } from '@core/rudiments';

/** A move as written here: its name and parameters. Ids are given when the shelf is made. */
type Written = { readonly [N in MoveName]: readonly [N, MoveParams[N]] }[MoveName];

/** A phrase of the demo shelf before it is given ids and dates. */
export interface DemoPhrase {
  readonly name: string;
  readonly family: Family;
  readonly tempo: number;
  readonly goal: number;
  readonly note: string;
  readonly source: Source;
  readonly moves: readonly MoveEntry[];
}

type Close = MoveParams['fit']['close'];
type Select = MoveParams['level']['select'];

const typed = (text: string, meter = '4/4', grid: number = GRID.sixteenths, swing?: Source['swing']): Source => ({
  kind: 'typed',
  text,
  meter,
  grid,
  ...(swing ? { swing } : {}),
});
function rudiment(id: string): Source {
  const found = rudimentById(id);
  if (!found) throw new Error(`no rudiment ${id}`);
  return { kind: 'rudiment', id, meter: meterText(found.meter), grid: found.grid };
}
const bars = (n: number, close: Close = { kind: 'cut' }, start = '1', mirrored = false): Written => [
  'fit',
  { space: { bars: n }, start, mirrored, close },
];
const close = (text: string): Close => ({ kind: 'strokes', text });
const kickAtEnd: Written = ['insert', { text: 'K', where: { kind: 'end' } }];
const accent = (select: Select): Written => ['level', { select, level: 'accent' }];
const ghost = (select: Select): Written => ['level', { select, level: 'ghost' }];
const send = (select: Select, voices: MoveParams['voice']['voices'], under?: 'K' | 'H'): Written => [
  'voice',
  { select, voices, ...(under ? { under } : {}) },
];
const grid = (g: number): Written => ['grid', { grid: g }];
const later = (slots: number): Written => ['shift', { slots, mode: 'wrap' }];

function phrase(
  family: Family,
  name: string,
  [tempo, goal]: readonly [number, number],
  note: string,
  source: Source,
  ...moves: Written[]
): DemoPhrase {
  return {
    name,
    family,
    tempo,
    goal,
    note,
    source,
    moves: moves.map(([move, params], i) => ({ id: `m${i + 1}`, on: true, move, params }) as MoveEntry),
  };
}

const RIGHTS: Select = { limbs: ['R'] };
const LEFTS: Select = { limbs: ['L'] };
const ACCENTS: Select = { levels: ['accent'] };
const HAND_ACCENTS: Select = { limbs: ['R', 'L'], levels: ['accent'] };

/** The phrases of The Salt Lantern, an invented harbour-town show. */
export const DEMO_PHRASES: readonly DemoPhrase[] = [
  phrase(
    'fill',
    'Glass over five',
    [92, 104],
    'Last two bars of “Storm Glass”, out of the storm. Not under the duet.',
    typed('R l l R', '7/8'),
    kickAtEnd,
    bars(2, close('R L R')),
    accent({ places: [1], limbs: ['R'] }),
    send(HAND_ACCENTS, ['crash-right'], 'K'),
    send({ limbs: ['R'], levels: ['tap'] }, ['high-tom']),
  ),
  phrase(
    'fill',
    'Lamp trimmer',
    [72, 96],
    'Half a bar from 3, small room, ends soft.',
    rudiment('paradiddle-diddle'),
    bars(1, { kind: 'cut' }, '3'),
    ghost(LEFTS),
    send({ limbs: ['R'], levels: ['accent'] }, ['high-tom', 'floor-tom']),
  ),
  phrase(
    'fill',
    'Gutting knife',
    [92, 112],
    'The march, bar 16. Dry and quick.',
    typed('R! l R R L! r L L'),
    bars(1),
    send({ limbs: ['R'], levels: ['accent'] }, ['high-tom']),
    send({ limbs: ['L'], levels: ['accent'] }, ['mid-tom']),
  ),
  phrase(
    'fill',
    'Spilled herring',
    [66, 88],
    'Sextuplets down the toms, only when the singer is out of the way.',
    typed('R L R L K K', '4/4', GRID.sextuplets),
    bars(1, { kind: 'cut' }, '3'),
    accent({ places: [1] }),
    send({ limbs: ['R', 'L'] }, ['snare', 'snare', 'high-tom', 'high-tom', 'mid-tom', 'floor-tom']),
  ),
  phrase(
    'fill',
    'Anchor chain',
    [88, 104],
    'Fives over the bar; land it on the crash.',
    typed('R L R L'),
    kickAtEnd,
    bars(1, close('R')),
    accent({ places: [1] }),
    send({ limbs: ['R'] }, ['floor-tom']),
  ),
  phrase(
    'fill',
    'Cold rope',
    [80, 100],
    'From the & of 2, never before the bridge.',
    typed('R! l l K'),
    bars(1, { kind: 'rest' }, '2&'),
    send(ACCENTS, ['mid-tom', 'floor-tom']),
  ),
  phrase(
    'fill',
    'Last ferry',
    [96, 120],
    'Two bars out of the first act.',
    rudiment('flam-accent'),
    bars(2),
    send({ limbs: ['R'], levels: ['accent'] }, ['high-tom']),
    send({ limbs: ['L'], levels: ['accent'] }, ['floor-tom']),
  ),
  phrase(
    'fill',
    'Broken oar',
    [84, 104],
    'Sevens in 7/8 sit on the bar: good when everyone is lost.',
    typed('R L K R L L K', '7/8'),
    bars(1),
    accent({ places: [1, 4] }),
    send({ limbs: ['R'], levels: ['accent'] }, ['high-tom', 'mid-tom']),
  ),
  phrase(
    'lick',
    'Low tide three',
    [108, 126],
    'Eel Market, under the whistle.',
    typed('R l K', '4/4', GRID.triplets),
    bars(1),
    accent({ counts: ['2', '4'] }),
    send({ limbs: ['R'] }, ['hat-closed']),
  ),
  phrase(
    'lick',
    'Gull on a post',
    [76, 96],
    'Six notes, hands then feet.',
    typed('R L L R K K', '4/4', GRID.sextuplets),
    bars(1),
    accent({ places: [1] }),
  ),
  phrase('lick', 'Wet boots', [70, 92], 'Doubles that walk; keep the lefts low.', rudiment('single-dragadiddle'), bars(1)),
  phrase(
    'lick',
    'Tar bucket',
    [80, 108],
    'The old five with the kick, swapped every time.',
    typed('R! l l R K'),
    bars(2, { kind: 'cut' }, '1', true),
  ),
  phrase(
    'lick',
    'Two lanterns',
    [60, 80],
    '32nds, half a bar, then nothing.',
    typed('R L R L K -', '4/4', GRID.thirtySeconds),
    bars(1, { kind: 'rest' }, '3'),
    send(RIGHTS, ['high-tom']),
  ),
  phrase(
    'groove',
    'Rope walk',
    [78, 88],
    'Net Menders, verse. Ghosts lower than you think.',
    typed('R+K l R l R+L! l R K R l R+K l R+L! l R l'),
    bars(1),
    send(RIGHTS, ['hat-closed']),
  ),
  phrase(
    'groove',
    'Bilge pump',
    [70, 112],
    'Linear, so the bass can breathe.',
    typed('R L K R K L! R K'),
    bars(1),
    send(RIGHTS, ['hat-closed']),
  ),
  phrase(
    'groove',
    'Fog horn',
    [84, 96],
    'The waltz in two; the foot is the buoy.',
    typed('R+K l R R+L! l R', '6/8', GRID.eighths),
    bars(2),
    send(RIGHTS, ['ride']),
  ),
  phrase(
    'groove',
    'Harbour master',
    [100, 112],
    'March feel, flat sticks, no hurry.',
    rudiment('flam-tap'),
    bars(1),
    send({ counts: ['2', '4'] }, ['cross-stick']),
  ),
  phrase(
    'groove',
    'Storm glass',
    [92, 104],
    '7/8 as 2 + 2 + 3. Count the three.',
    typed('R+K - R - R+L! - R - R+K - R+L! - R -', '7/8'),
    bars(2),
    send(RIGHTS, ['hat-closed']),
  ),
  phrase(
    'groove',
    'Eel market',
    [110, 126],
    'Half-time shuffle: the middle one is a ghost or it is nothing.',
    typed('R+K l R R l R+K R+L! l R R+K l R', '4/4', GRID.triplets),
    bars(1),
    send(RIGHTS, ['hat-closed']),
  ),
  phrase(
    'groove',
    'Lamp room',
    [66, 72],
    'Cross-stick and air.',
    typed('R+K - R l R+L - R - R K R l R+L - R k', '4/4', GRID.sixteenths, { on: '16ths', ratio: 0.56 }),
    bars(1),
    send(RIGHTS, ['hat-closed']),
    send({ limbs: ['L'], levels: ['tap'] }, ['cross-stick']),
  ),
  phrase(
    'groove',
    'Ballast',
    [84, 104],
    'Everything one 16th late; for the rehearsal letter D only.',
    typed('R+K l R l R+L! l R l'),
    bars(1),
    send(RIGHTS, ['hat-closed']),
    later(1),
  ),
  phrase('warm-up', 'Even keel', [120, 150], 'Two minutes before anything else.', rudiment('single-paradiddle'), bars(2)),
  phrase(
    'warm-up',
    'Gull wings',
    [110, 140],
    'Accents high, everything else at three centimetres.',
    typed('R! r r L! l l', '4/4', GRID.triplets),
    bars(2),
  ),
  phrase('warm-up', 'Slow swell', [60, 84], 'Open roll; listen to the second stroke.', rudiment('double-stroke-open-roll'), bars(1)),
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
];
