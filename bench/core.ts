import { barTicks, countAt, GRID, meter, USUAL_SCHOOLS } from '@core/time';
import { chooses } from '@core/selection';
import { build, type MoveEntry, type Recipe } from '@core/recipe';
import { eventsIn, programOf } from '@core/playback';
import { readLine } from '@core/language';
import { line } from './measure';

/** Eight bars of 4/4 from a five-slot cell with twelve moves. */
function eightBars(): Recipe {
  const moves: Pick<MoveEntry, 'move' | 'params'>[] = [
    { move: 'insert', params: { text: 'K', where: { kind: 'end' } } },
    { move: 'grid', params: { grid: GRID.sextuplets } },
    { move: 'grid', params: { grid: GRID.sixteenths } },
    {
      move: 'fit',
      params: { space: { bars: 8 }, start: '1', mirrored: true, close: { kind: 'strokes', text: 'R L R' } },
    },
    { move: 'level', params: { select: chooses({ places: [1] }), level: 'accent' } },
    { move: 'level', params: { select: chooses({ limbs: ['L'], counts: ['2', '4'] }), level: 'ghost' } },
    { move: 'voice', params: { select: chooses({ limbs: ['R'] }), voices: ['high-tom', 'mid-tom', 'floor-tom'] } },
    {
      move: 'voice',
      params: { select: chooses({ levels: ['accent'], limbs: ['R', 'L'] }), voices: ['crash-right'], under: 'K' },
    },
    { move: 'shift', params: { slots: 1, mode: 'wrap' } },
    { move: 'level', params: { select: chooses({ every: { n: 3, offset: 0, of: 'slot' } }), level: 'accent' } },
    { move: 'voice', params: { select: chooses({ bars: [8] }), voices: ['snare'] } },
    { move: 'shift', params: { slots: -1, mode: 'wrap' } },
  ];
  return {
    source: { kind: 'typed', text: 'R l l R', meter: '4/4', grid: GRID.sixteenths },
    moves: moves.map((m, i) => ({ id: `m${i}`, on: true, ...m }) as MoveEntry),
  };
}

/** The same with four moves more: sixteen. */
function sixteenMoves(): Recipe {
  const recipe = eightBars();
  const more: Pick<MoveEntry, 'move' | 'params'>[] = [
    {
      move: 'layer',
      params: { limb: 'H', voice: 'hat-foot', level: 'tap', on: { kind: 'grid', grid: 5040 }, clash: 'keep' },
    },
    { move: 'ornament', params: { select: chooses({ places: [1] }), ornament: 'flam' } },
    { move: 'mirror', params: { feet: false } },
    { move: 'swap', params: { select: chooses({ inRun: 2 }), limb: 'K' } },
  ];
  return { ...recipe, moves: [...recipe.moves, ...more.map((m, i) => ({ id: `n${i}`, on: true, ...m }) as MoveEntry)] };
}

const recipe = eightBars();
const sixteen = sixteenMoves();
const built = build(recipe);
const lastChanged: Recipe = {
  ...recipe,
  moves: recipe.moves.map((m, i) => (i === 11 ? ({ ...m, params: { slots: -2, mode: 'wrap' } } as MoveEntry) : m)),
};
const four = meter(4, 4);
const counting = { meter: four, grid: GRID.sixteenths, schools: USUAL_SCHOOLS };
const slots = (8 * barTicks(four)) / GRID.sixteenths;
const program = programOf(built.pattern, { click: 'beats', countInBars: 0 });
const end = 64 * barTicks(four);
const everything = eventsIn(program, 0, end);
const step = 1260;

function spend16ms(): void {
  const end = performance.now() + 16;
  while (performance.now() < end);
}

console.log(`8 bars, 12 moves: ${built.pattern.strokes.length} strokes\n`);
console.log(
  line(
    'build() from nothing',
    () => build(recipe),
    'structuredClone of its pattern',
    () => structuredClone(built.pattern),
  ),
);
console.log(line('build() of 16 moves from nothing', () => build(sixteen), 'one frame of 16 ms', spend16ms));
console.log(
  line(
    'build() after the last move changed',
    () => build(lastChanged, built),
    'build() from nothing',
    () => build(recipe),
  ),
);
console.log(
  line(
    'a line of three parts read for 8 bars',
    () => readLine('right hand to the hi-hat, lefts ghosted, accent 2 and 4', built),
    'a key, 5 ms',
    () => {
      const until = performance.now() + 5;
      while (performance.now() < until);
    },
  ),
);
console.log(
  line(
    'countAt() for every 16th of 8 bars',
    () => Array.from({ length: slots }, (_, i) => countAt(i * 1260, counting)),
    'the bar and beat by division alone',
    () => Array.from({ length: slots }, (_, i) => `${Math.floor(i / 16) + 1}:${(Math.floor(i / 4) % 4) + 1}`),
  ),
);
console.log(
  line(
    'eventsIn() of 64 bars, a 16th at a time',
    () => {
      for (let t = 0; t < end; t += step) eventsIn(program, t, t + step);
    },
    'filtering the whole list a 16th at a time',
    () => {
      for (let t = 0; t < end; t += step) everything.filter((e) => e.at >= t && e.at < t + step);
    },
  ),
);
