import { GRID, parseMeter } from '../time';
import { parseStrokeText } from '../stroke';
import { patternOfText } from '../pattern';
import { build, guessFamily, offerOf } from '.';

const pattern = (text: string, meter = '4/4', grid = GRID.sixteenths) => {
  const read = parseStrokeText(text);
  if (!read.ok) throw new Error(text);
  return patternOfText(read.value, parseMeter(meter)!, grid);
};
const landed = (text: string) => {
  const land = { ...offerOf('land', { hand: 'R', voice: 'crash-right', kick: true }).entry, id: 'l' };
  return build({ source: { kind: 'typed', text, meter: '4/4', grid: 1260 }, moves: [land] }).pattern;
};

describe('what a phrase most likely is', () => {
  it.each([
    [
      'hats in eighths with kick and snare',
      'R[hat]+K - R[hat] - R[hat]+L! - R[hat] - R[hat]+K - R[hat] - R[hat]+L! - R[hat] -',
      'groove',
      null,
    ],
    ['kick and snare that go round', 'K - - - L! - - - K - K - L! - - -', 'groove', null],
    ['the same with ghosts between', 'K - l - L! - - l K - K - L! l - -', 'groove', null],
    ['kick and snare that answers nowhere', 'K - L! - - - K - - L - - K - - L', 'fill', null],
    ['singles over a bar', '(R L)x8', 'fill', null],
    ['half a bar', 'R L R L K K R L', 'lick', null],
    ['one hat in a fill', 'R L R L R L R L R L R L R[hat] L R! K', 'fill', null],
    ['time in half of the beats', 'R[hat]+K - R[hat] - R[hat]+L! - R[hat] - R L R L R L R! L', 'groove', 'fill'],
  ] as const)('%s', (_, text, family, near) => expect(guessFamily(pattern(text))).toEqual({ family, near }));
  it.each([
    ['a waltz', 'R[ride]+K R[ride] R[ride]+L!', '3/4', GRID.quarters, 'groove'],
    ['seven as two, two and three', 'K - K - L! - -', '7/8', GRID.eighths, 'groove'],
    [
      'six eighths, ride and backbeat',
      'R[ride]+K R[ride] R[ride] R[ride]+L! R[ride] R[ride]',
      '6/8',
      GRID.eighths,
      'groove',
    ],
    ['not a whole bar', 'R[hat]+K R[hat] R[hat]+L!', '4/4', GRID.eighths, 'lick'],
  ] as const)('%s', (_, text, meter, grid, family) =>
    expect(guessFamily(pattern(text, meter, grid)).family).toBe(family),
  );
  it('what lands is a fill, whatever cymbals are in it', () => {
    expect(guessFamily(landed('(R[hat] L)x8')).family).toBe('fill');
    expect(guessFamily(landed('R[hat] L R[hat] L')).family).toBe('lick');
  });
});
