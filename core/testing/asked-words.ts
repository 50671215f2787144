import type { Demands } from '../compose';

/** A line that asks for a phrase, and what it sets; wishes as "hit 0 7", "no K 12", by slots. */
export interface AskedLine {
  readonly say: string;
  readonly sets: Partial<Omit<Demands, 'wishes'>>;
  readonly wishes?: readonly string[];
  /** Written before the words were, and scored before they were looked at. */
  readonly held?: true;
  /** It is not read yet: refused, never taken for something else. */
  readonly unread?: true;
}

const SIXTEENTHS = 1260;
const TRIPLETS = 1680;
const SEXTUPLETS = 840;

export const ASKED_LINES: readonly AskedLine[] = [
  {
    say: 'two bars of 16ths, hits on 1 and the a of 2, linear, playable at 110',
    sets: { bars: 2, grid: SIXTEENTHS, linear: true, holds: 110 },
    wishes: ['hit 0 7 16 23'],
  },
  {
    say: 'a bar of 7/8 in 16ths, hits on 1, the & of 3 and 6, the kick as it stands, linear, no more than two in a row, lands on a crash with the left, holds at 120 on my kit, nothing like what I have',
    sets: { meter: '7/8', bars: 1, linear: true, hand: 2, lands: 'left', holds: 120, keeps: ['kick'], unlike: 4 },
    wishes: ['hit 0 5 10'],
  },
  { say: 'one bar of triplets, fives and threes', sets: { bars: 1, grid: TRIPLETS, blocks: ['3', '5'] } },
  { say: 'half a bar of 32nds, singles only', sets: { bars: 0.5, grid: 630, blocks: ['singles'] } },
  {
    say: 'paradiddles only, two bars, start with the left',
    sets: { rudiments: ['single paradiddle'], blocks: [], bars: 2, lead: 'L' },
  },
  { say: 'kicks on 1 and 3, no kick on 4', sets: {}, wishes: ['K 0 8', 'no K 12'] },
  { say: '3/4 in 16ths, rest on the & of 2', sets: { meter: '3/4' }, wishes: ['rest 6'] },
  { say: 'start on 3, land on the kick', sets: { from: '3', lands: 'kick' } },
  { say: 'never two kicks', sets: { foot: 1 } },
  { say: 'threes fours and fives', sets: { blocks: ['3', '4', '5'] } },
  { say: 'groups of 3, 4 and 5 with the last one cut', sets: { blocks: ['3', '4', '5'], cut: true } },
  {
    say: 'no doubles, lots of space',
    sets: { hand: 1, density: 'half', blocks: ['3', '4', '5', 'rests'] },
  },
  { say: 'accents on every beat', sets: {}, wishes: ['hit 0 4 8 12'] },
  { say: 'right hand on 1 and left hand on 3', sets: {}, wishes: ['R 0', 'L 8'] },
  { say: 'nothing on beat 4', sets: {}, wishes: ['rest 12 13 14 15'] },
  {
    say: 'crash on 1, floor tom on the a of 4',
    sets: {},
    wishes: ['crash-right 0', 'floor-tom 15'],
  },
  { say: 'two bars, six slots unlike my shelf', sets: { bars: 2, unlike: 6 } },
  { say: 'like this but two strokes different, keep the kick', sets: { like: 2, keeps: ['kick'] } },
  { say: 'hands and kick together are fine', sets: { linear: false } },
  { say: 'down the toms, leading with the left', sets: { way: 'down', lead: 'L' } },

  { say: 'bar of 5/8 in sixteenths, hits 1 and 4, linear', sets: { meter: '5/8' }, wishes: ['hit 0 6'], held: true },
  { say: 'two bars, fours and sixes, good for 130', sets: { bars: 2, blocks: ['4', '6'], holds: 130 }, held: true },
  {
    say: 'kick stays, fill the rest with fives, lead left',
    sets: { keeps: ['kick'], blocks: ['5'], lead: 'L' },
    held: true,
  },
  {
    say: 'something linear in triplets that lands on the left crash',
    sets: { linear: true, grid: TRIPLETS, lands: 'left' },
    held: true,
  },
  { say: 'quintuplets, one bar, no two kicks in a row', sets: { grid: 1008, foot: 1 }, held: true },
  { say: 'hits on the ands, nothing on 1', sets: {}, wishes: ['hit 2 6 10 14', 'rest 0'], held: true },
  { say: '16ths from 3, kick on the a of 4', sets: { from: '3' }, wishes: ['K 7'], held: true },
  { say: 'not linear, at most three with one hand', sets: { linear: false, hand: 3 }, held: true },
  { say: 'rudiments only, three bars of 3/4', sets: { blocks: ['rudiments'], bars: 3, meter: '3/4' }, held: true },
  {
    say: 'single strokes and rests, sparse',
    sets: { blocks: ['singles', 'rests'], density: 'half' },
    held: true,
  },
  { say: 'accents where they are now, different sticking', sets: { keeps: ['accents'] }, held: true },
  {
    say: 'a one bar fill in sextuplets, ends with the right, down the toms',
    sets: { bars: 1, grid: SEXTUPLETS, end: 'R', way: 'down' },
    held: true,
  },
  { say: 'must work at 140', sets: { holds: 140 }, held: true },
  { say: 'no hits on 2 and 4, hits on 1 and 3', sets: {}, wishes: ['no hit 4 12', 'hit 0 8'], held: true },
  { say: 'kick inside groups of five and seven', sets: { blocks: ['kick-inside'] }, held: true },
  {
    say: '12/8, kick on every beat, no rests',
    sets: { meter: '12/8', density: 'every' },
    wishes: ['K 0 6 12 18'],
    held: true,
  },
  { say: 'snare on 2 and 4', sets: {}, wishes: ['snare 4 12'], held: true },
  { say: 'two kicks at the end of each group', sets: { blocks: ['two-kicks'] }, held: true },
  { say: 'round the kick, R L L', sets: { keeps: ['kick'], blocks: ['own'], own: 'R L L' }, held: true },
  { say: 'start with the right and finish with the left', sets: { lead: 'R', end: 'L' }, held: true },
  {
    say: '4 bars of 16ths in 11/16, threes and fours, last one may be cut off',
    sets: { bars: 4, meter: '11/16', blocks: ['3', '4'], cut: true },
    held: true,
  },
  { say: 'keep hands, move the kicks', sets: { keeps: ['hands'] }, held: true },
  { say: 'new to me, up the toms, 95 bpm', sets: { unlike: 4, way: 'up', holds: 95 }, held: true },
  { say: 'two bars, hit the & of 4 in bar 2', sets: { bars: 2 }, wishes: ['hit 30'], held: true },
  { say: 'only R L R K and R L L K', sets: { blocks: ['own'], own: 'R L R K, R L L K' }, held: true },
  {
    say: 'swiss army triplets in a bar of 9/8',
    sets: { rudiments: ['swiss army triplet'], blocks: [], meter: '9/8', bars: 1 },
    held: true,
  },
  { say: 'left hand never on 1', sets: {}, wishes: ['no L 0'], held: true },
  { say: 'no more than one kick at a time, 16ths, two bars of 4/4', sets: { foot: 1, bars: 2 }, held: true },
  { say: 'dense, every sixteenth played', sets: { density: 'every' }, held: true },
  { say: 'a bar of seven eight', sets: { meter: '7/8', bars: 1 }, held: true },

  // Lots of fourteen, each written when the one before was read, and scored before the words were mended for it: of the
  // thirty above 27 were read, of the lots 6, 4, 5 and 6; none was taken for something else.
  {
    say: 'give me something in 5/4 with the kick on 1 and 4 and accents on 2 and 5',
    sets: { meter: '5/4' },
    wishes: ['K 0 12', 'hit 4 16'],
    held: true,
  },
  { say: 'triplet fill over two beats', sets: { grid: TRIPLETS, bars: 0.5 }, held: true },
  { say: 'the last two beats of the bar', sets: { from: '3' }, held: true },
  { say: 'crash on the & of 4 with the left hand', sets: {}, wishes: ['crash-right 14', 'L 14'], held: true },
  { say: 'accents on 1, 2& and 4', sets: {}, wishes: ['hit 0 6 12'], held: true },
  { say: 'kick on the a of every beat', sets: {}, wishes: ['K 3 7 11 15'], held: true },
  { say: 'starts and ends with the left', sets: { lead: 'L', end: 'L' }, held: true },
  { say: 'threes, then fours', sets: { blocks: ['3', '4'] }, held: true },
  { say: 'a 5 stroke roll', sets: { rudiments: ['five stroke roll'], blocks: [] }, held: true },
  {
    say: 'double paradiddles in 6/8',
    sets: { rudiments: ['double paradiddle'], blocks: [], meter: '6/8' },
    held: true,
  },
  { say: 'around 120 bpm', sets: { holds: 120 }, held: true },
  { say: 'ride on 1 and 3, hands apart', sets: { way: 'apart' }, wishes: ['ride 0 8'], held: true },
  {
    say: 'hits: 1, 2&, 4; kicks: 1& and 3; no snare on 2',
    sets: {},
    wishes: ['hit 0 6 12', 'K 2 8', 'no snare 4'],
    held: true,
  },
  {
    say: 'hands only, no kick at all',
    sets: { blocks: ['singles'] },
    wishes: ['no K 0 1 2 3 4 5 6 7 8 9 10 11 12 13 14 15'],
    held: true,
  },

  { say: 'one bar, bass drum on beats 1 and 3', sets: {}, wishes: ['K 0 8'], held: true },
  {
    say: 'I want accents at the e of 1 and the e of 3, two bars long',
    sets: { bars: 2 },
    wishes: ['hit 1 9 17 25'],
    held: true,
  },
  { say: 'beat 4 empty, no more than 3 kicks', sets: { foot: 3 }, wishes: ['rest 12 13 14 15'], held: true },
  { say: 'a linear six inside a bar of 3/4', sets: { blocks: ['6'], meter: '3/4', linear: true }, held: true },
  { say: 'left leads, right ends, quintuplets', sets: { lead: 'L', end: 'R', grid: 1008 }, held: true },
  {
    say: 'six stroke rolls over half a bar, at 100',
    sets: { rudiments: ['six stroke roll'], blocks: [], bars: 0.5, holds: 100 },
    held: true,
  },
  { say: 'leave 1 out, hit 2 and 4 hard', sets: {}, wishes: ['rest 0', 'hit 4 12'], held: true },
  { say: 'same accents, same kick, new sticking', sets: { keeps: ['accents', 'kick'] }, held: true },
  { say: 'fives with two kicks', sets: { blocks: ['5', 'two-kicks'] }, held: true },
  {
    say: '2 bars, crash with the left on 1 of bar 2',
    sets: { bars: 2 },
    wishes: ['crash-right 16', 'L 16'],
    held: true,
  },
  { say: 'three strokes different at most, keep the hands', sets: { like: 3, keeps: ['hands'] }, held: true },
  { say: 'begin on the & of 3 and land with crash and kick', sets: { from: '3&', lands: 'right' }, held: true },
  {
    say: 'not more than 2 with either hand, nothing on the e',
    sets: { hand: 2 },
    wishes: ['rest 1 5 9 13'],
    held: true,
  },
  {
    say: 'paradiddle-diddles in sextuplets that hold at 90',
    sets: { rudiments: ['single paradiddle-diddle'], blocks: [], grid: SEXTUPLETS, holds: 90 },
    held: true,
  },

  { say: 'on 2 and 4 a loud left', sets: {}, wishes: ['hit 4 12', 'L 4 12'], held: true },
  { say: 'keep 3 free, kick only on 1', sets: {}, wishes: ['rest 8', 'K 0'], held: true },
  {
    say: 'two bars in 7/8, a stab on 1 of each bar',
    sets: { bars: 2, meter: '7/8' },
    wishes: ['hit 0 14'],
    held: true,
  },
  { say: 'nothing bigger than a double, 32nds', sets: { hand: 2, grid: 630 }, held: true },
  { say: 'should be possible at 150', sets: { holds: 150 }, held: true },
  { say: 'I only want fours and fives', sets: { blocks: ['4', '5'] }, held: true },
  { say: 'without kick on the first beat', sets: {}, wishes: ['no K 0 1 2 3'], held: true },
  { say: 'close on a right hand, open with a left', sets: { lead: 'L', end: 'R' }, held: true },
  { say: 'a fill from the & of 2 to the end of the bar', sets: { from: '2&' }, held: true },
  { say: 'ends on the floor tom on 4a', sets: {}, wishes: ['floor-tom 15'], held: true },
  { say: 'mostly singles with a few kicks', sets: { blocks: ['singles', 'kicks'] }, held: true },
  { say: 'one beat of sextuplets', sets: { grid: SEXTUPLETS, bars: 0.25 }, held: true },
  { say: 'change three notes, keep the accents', sets: { like: 3, keeps: ['accents'] }, held: true },
  {
    say: 'hits with the right on every &, kick under 1',
    sets: {},
    wishes: ['hit 2 6 10 14', 'R 2 6 10 14', 'K 0'],
    held: true,
  },

  {
    say: 'three four time, triplets, kick on 1 only',
    sets: { meter: '3/4', grid: TRIPLETS },
    wishes: ['K 0'],
    held: true,
  },
  { say: 'accent the & of 1 and the & of 3', sets: {}, wishes: ['hit 2 10'], held: true },
  { say: 'built from fives, closing with a three', sets: { blocks: ['5', '3'] }, held: true },
  { say: 'land on the left crash with the left hand', sets: { lands: 'left' }, held: true },
  { say: 'not faster than I can play at 100', sets: { holds: 100 }, held: true },
  { say: 'no left on 1 and no right on 4', sets: {}, wishes: ['no L 0', 'no R 12'], held: true },
  { say: 'kick on 1 and the a of 3 in bar 1, two bars', sets: { bars: 2 }, wishes: ['K 0 11'], held: true },
  {
    say: 'sixteenth notes, two beats, hands lead with right',
    sets: { grid: SIXTEENTHS, bars: 0.5, lead: 'R' },
    held: true,
  },
  { say: 'fours only, linear please', sets: { blocks: ['4'], linear: true }, held: true },
  {
    say: 'something sparse in 5/8 that starts with the left',
    sets: { meter: '5/8', density: 'half', lead: 'L', blocks: ['3', '4', '5', 'rests'] },
    held: true,
  },
  { say: 'up the toms from the floor, two bars', sets: { way: 'up', bars: 2 }, held: true },
  { say: 'china on 4, kick with it', sets: {}, wishes: ['china 12', 'K 12'], unread: true, held: true },
  { say: 'hold the kick, four slots may change', sets: { keeps: ['kick'], like: 4 }, held: true },
  { say: 'at most two lefts in a row and at most one kick', sets: { hand: 2, foot: 1 }, held: true },
];
