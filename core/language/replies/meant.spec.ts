// Sentences that were once read as something else without a word: each is right, or asked, or refused. What they make
// is written out here as stroke text, stroke by stroke.
import { build } from '../../recipe';
import type { Pattern } from '../../pattern';
import { SHOWN } from '../grammar/playing';
import { readLine } from './read';

const of = (text: string, meter = '4/4') => build({ source: { kind: 'typed', text, meter, grid: 1260 }, moves: [] });
const drawn = ({ strokes }: Pattern): string =>
  strokes.map((s) => `${s.at / 1260}${s.limb} ${s.voice} ${s.level}`).join(', ');

/** What a line makes of a phrase: of each meaning all strokes. */
function made(text: string, line: string): readonly string[] {
  const r = readLine(line, of(text));
  return r.kind === 'meant' ? r.all.map((m) => drawn(m.pattern)) : [];
}
const are = (...texts: readonly string[]): readonly string[] => texts.map((t) => drawn(of(t).pattern));

const P = 'R l l R L r r L R l R l R R L L';
const BEAT_4 = (to: string): string => `R l l R L r r L R l R l ${to}`;

describe('a beat and a count', () => {
  it.each([
    ['rights on beat 4 to the ride', are(BEAT_4('R[ride] R[ride] L L'))],
    ['right on 4 to the ride', are(BEAT_4('R[ride] R L L'))],
    ['all of beat 4 to the floor tom', are(BEAT_4('R[floor tom] R[floor tom] L[floor tom] L[floor tom]'))],
    ['accent the last right of beat 3', are('R l l R L r r L R l R! l R R L L')],
    ['accent beat 4', are(BEAT_4('R! R L L'))],
    ['ghost beat 4', are(BEAT_4('r R L L'), BEAT_4('r r l l'))],
    ['beat 4 down the toms in twos', are(BEAT_4('R[high tom] R[high tom] L[mid tom] L[mid tom]'))],
  ])('%s', (line, wanted) => expect(made(P, line)).toEqual(wanted));
});

describe('a syllable spreads over the beats behind it', () => {
  const eighths = (a: string): string => {
    const slots = 'R - L - R - L - R - L - R - L -'.split(' ');
    const loud = a.split(' ').map(Number);
    return slots.map((slot, i) => (loud.includes(i) ? `${slot}!` : slot)).join(' ');
  };
  it.each([
    ['accent the ands of 1 and 3', '2 10'],
    ['accent the & of 2 and 4', '6 14'],
    ['accent the ands of 1, 2 and 4', '2 6 14'],
    // Of what has a name of its own it says nothing.
    ['accent 2& and 4', '6 12'],
    ['accent 1 and the & of 3', '0 10'],
  ])('%s', (line, at) => expect(made(eighths('0').replace('!', ''), line)).toEqual(are(eighths(at))));
  it('several of one beat: the e and a of 2', () =>
    expect(made(P, 'accent the e and a of 2')).toEqual(are('R l l R L R! r L! R l R l R R L L')));
});

describe('what was last spoken of', () => {
  it.each([
    ['accent the last note and send it to the crash', are(P.replace(/L$/, 'L![right crash]'))],
    [
      'first two on the high tom, next two on the mid tom',
      are(P.replace(/^R l l R/, 'R[high tom] l[high tom] l[mid tom] R[mid tom]')),
    ],
  ])('%s', (line, wanted) => expect(made(P, line)).toEqual(wanted));
  it('the next of which there are too few are refused', () =>
    expect(made('R L R', 'first two on the high tom, next two on the mid tom')).toEqual([]));
  it('kicks that come under strokes are spoken of with them', () =>
    expect(made('R! L R L', 'accents to the ride with a kick, everything else ghosted')).toEqual(
      are('R![ride]+K! l r l'),
    ));
});

describe('heights', () => {
  it('change places at once', () => {
    for (const line of ['turn accents into ghosts and ghosts into accents', 'swap accents and ghosts'])
      expect(made('R! l L r K R!', line)).toEqual(are('r L! L R! K r'));
    expect(made('R! L K', 'swap accents and ghosts')).toEqual(are('r L K'));
    expect(made('R L K', 'swap accents and ghosts')).toEqual([]);
  });
  it('what is not so', () => {
    expect(made('R! l R r L', 'unghosted rights to the bell')).toEqual(are('R![ride bell] l R[ride bell] r L'));
    expect(made('R! l R r L', 'as taps')).toEqual(are('R L R R L'));
  });
  it('the second kick foot is a foot, and no second kick', () => {
    expect(made('R K L K', 'ghost the second kick foot')).toEqual([]);
    expect(made('R K L J', 'ghost the second kick foot')).toEqual(are('R K L j'));
    expect(made('R K L K', 'ghost the second kick')).toEqual(are('R K L k'));
  });
});

describe('over the kit', () => {
  it('so many on each, where they cannot be counts', () =>
    expect(made('R L R L R L R L', '2 on the snare, 2 on the high tom, 3 on the floor tom')).toEqual(
      are('R L R[high tom] L[high tom] R[floor tom] L[floor tom] R[floor tom] L'),
    ));
  it('more than there are is refused', () => expect(made('R L R', '2 on the snare, 2 on the high tom')).toEqual([]));
  it('a kick behind several pieces is under the last, or under all', () =>
    expect(made('R L R L', 'all to the snare, high tom, floor tom, crash with kick')).toEqual(
      are('R L[high tom] R[floor tom] L[right crash]+K', 'R+K L[high tom]+K R[floor tom]+K L[right crash]+K'),
    ));
  it('a kick on every eighth asks what becomes of those between', () => {
    expect(made('R L R K', 'kick on eighths')).toEqual(are('R+K L R+K K', 'R+K L R+K -'));
    expect(made('R L R K', 'add kicks on eighths')).toEqual(are('R+K L R+K K'));
    expect(made('K L R L', 'kick on eighths')).toEqual(are('K L R+K L'));
  });
  it('half of a phrase of two bars is asked: of the phrase, or of each bar', () => {
    const bar = '(R L)x8';
    const halves = made(`${bar} ${bar}`, 'ghost the second half');
    const g = '(r l)x4';
    const t = '(R L)x4';
    expect(halves).toEqual(are(`${bar} ${g} ${g}`, `${t} ${g} ${t} ${g}`));
  });
});

describe('what is for the player, and no change', () => {
  const order = (line: string) => {
    const r = readLine(line, of(P));
    return r.kind === 'playing' ? r.order : 'a change';
  };
  it.each([
    [
      'drill beat 3 from 75 to 97',
      { kind: 'drill', part: { from: 10080, until: 15120, said: 'beat 3' }, at: 75, to: 97 },
    ],
    ['drill it from 60 to 80', { kind: 'drill', part: null, at: 60, to: 80 }],
    ['loop the second half at 70', { kind: 'loop', from: 10080, until: 20160, at: 70 }],
    ['only the groove', { kind: 'only-groove' }],
    ['mute the snare', { kind: 'mute', pieces: ['snare'] }],
    ['without the snare', { kind: 'mute', pieces: ['snare'] }],
    ['keep as new Shape B', { kind: 'keep', name: 'Shape B' }],
    ['as paradiddles', { kind: 'show', what: 'stickings' }],
    ['show me the variants', { kind: 'show', what: 'variants' }],
    ['print it', { kind: 'show', what: 'print' }],
  ])('%s', (line, wanted) => expect(order(line)).toEqual(wanted));
  it('whatever lies behind a button of its own has words', () => {
    const lines = [
      'find a sticking',
      'show the variants',
      'the staff',
      'show me the travel',
      'compare it',
      'print it',
      'share it',
      'earlier versions',
    ];
    const opened = lines
      .map((line) => order(line))
      .map((o) => (o !== null && typeof o === 'object' && o.kind === 'show' ? o.what : 'nothing'));
    expect(opened).toEqual([...SHOWN]);
  });
  it('tempos that are none are refused', () => {
    for (const line of ['drill it from 2 to 80', 'loop beat 3 at 900']) expect(order(line)).toBe('a change');
  });
});

describe('other words for what is known', () => {
  it.each([
    // Jotted down.
    ['R L R L', 'RH ride, LH ghosts', 'R[ride] l R[ride] l'],
    ['R L R L R L R L', 'acc 1, a of 1, & of 2', 'R! L R L! R L R! L'],
    ['R! l R! l', 'BD w/ all accents', 'R!+K! l R!+K! l'],
    ['R L R L', 'right hand -> china cymbal', 'R[china] L R[china] L'],
    ['R L R L R L R L', 'HH foot 1 + 2', 'R+H L R L R+H L R L'],
    ['R L R L R L R L', 'accent 1+2', 'R! L R L R! L R L'],
    ['R[right crash] L R L', 'kick underneath the crashes', 'R[right crash]+K L R L'],
    // What stays.
    ['R L R L', 'take the rights to the bell and keep the lefts where they are', 'R[ride bell] L R[ride bell] L'],
    ['R! l R! l', 'accents to the ride while the rest stays on the snare', 'R![ride] l R![ride] l'],
    // Corrections replace only what they take back.
    ['R L R L', 'ghost the rights, no, the lefts', 'R l R l'],
    ['R L R L', 'rights to the ride, sorry, the high tom', 'R[high tom] L R[high tom] L'],
    ['R L R L', 'accent 1, I mean 1e', 'R L! R L'],
    // The others.
    [
      'R L R L R L',
      'first two rights on the ride, other rights on the floor tom',
      'R[ride] L R[ride] L R[floor tom] L',
    ],
    // Heights and grace strokes that go.
    ['R! L R! L', 'take the accent off the 1&', 'R! L R L'],
    ['fR L dR L', 'strip off all the ornaments', 'R L R L'],
    ['R l R l', 'bring the ghosts up to taps', 'R L R L'],
    // By another limb, or out.
    ['R L R L', 'last two notes go to the kick', 'R L K K'],
    ['K - R L', 'hi-hat foot takes over the kick', 'H - R L'],
    ['R L R L', 'left hand lays out', 'R - R -'],
    // As another beat.
    ['R L K R L R R R R L L R R L R L', 'beats 2, 3 and 4 all like beat 1', 'R L K R R L K R R L K R R L K R'],
    ['R L K R L R R R R L L R R L R L', 'copy beat 1 to beat 3', 'R L K R L R R R R L K R R L R L'],
    ['R L R L', 'three times through', 'R L R L R L R L R L R L'],
  ])('%s: “%s”', (text, line, wanted) => expect(made(text, line)).toEqual(wanted === '' ? [] : are(wanted)));
  it('half of the bar, where it is said, is not asked', () => {
    const bar = '(R L)x8';
    expect(made(`${bar} ${bar}`, 'ghost the first half of the bar')).toEqual(are('(r l)x4 (R L)x4 (r l)x4 (R L)x4'));
  });
  it('the same notes on another grid', () => {
    const grid = (line: string): number | string => {
      const r = readLine(line, of('R L R L'));
      return r.kind === 'meant' ? r.all.map((m) => m.pattern.grid).join() : r.kind;
    };
    for (const line of ['same notes as triplets', 'make triplets out of these 16ths', '16ths -> triplets'])
      expect([line, grid(line)]).toEqual([line, '1680']);
    expect(grid('turn the eighths into triplets')).toBe('not');
  });
});
