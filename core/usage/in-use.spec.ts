import { barTicks, GRID, meter, parseMeter, quarterTempo, TICKS_PER_QUARTER, type Meter } from '../time';
import { isHand, otherHand, parseStrokeText, type Voice } from '../stroke';
import { patternOfText, type Pattern } from '../pattern';
import { canonicalForm } from '../variants';
import type { Hit } from '../take';
import type { FreeSitting } from '../shelf';
import { OnsetDetector } from '../listen';
import { dice, bell } from '../testing/learners';
import { randomKit, recorded, type Struck } from '../testing/recordings';
import { playFreely, someShelf, type FreePlay } from '../testing/free-play';
import {
  answerTo,
  bestPulse,
  cameWords,
  callsWords,
  differencesOf,
  differencesWords,
  figuresIn,
  figuresOf,
  heardCall,
  justCame,
  keptTime,
  latticeOf,
  neverUsed,
  nextCall,
  playedPattern,
  pulsesIn,
  recallEvents,
  recallOn,
  recognise,
  steadied,
  tradeOf,
  usesIn,
  useWords,
  verdictOn,
  withKeptTime,
  type Callable,
  type UsablePhrase,
} from '.';

const FOUR = meter(4, 4);
const BAR = barTicks(FOUR);

const phrase = (id: string, text: string, m: Meter = FOUR): UsablePhrase => {
  const read = parseStrokeText(text);
  const pattern = patternOfText(read.ok ? read.value : [], m, GRID.sixteenths);
  return { id, pattern, form: canonicalForm(pattern) };
};

/** A text struck from a 16th on, at 100: force by height, the limb where it is told. */
function struck(text: string, from: number, limbs = false): Hit[] {
  return phrase('x', text).pattern.strokes.map((s) => ({
    seconds: (from + s.at / GRID.sixteenths) * 0.15,
    limb: limbs ? s.limb : null,
    voice: limbs ? null : s.voice,
    velocity: s.level === 'accent' ? 110 : s.level === 'tap' ? 66 : 35,
  }));
}
const ROPE = 'R! L R R K L! R K R L! R L K R! L K';
const bed = (bars: number): Hit[] => Array.from({ length: bars }, (_, b) => struck('R - R - R! - R -', 16 * b)).flat();

const USUAL: FreePlay = {
  meter: FOUR,
  bpm: 100,
  bars: 80,
  often: 0.35,
  scatter: 10,
  missed: 0.05,
  extra: 0.05,
  ghostsLost: 0,
  cut: false,
  anywhere: false,
  groove: 0,
};

describe('without a click', () => {
  /** A tempo that drifts by 3 % up and down, and a beginning anywhere. */
  const drifted = (hits: readonly Hit[], phase: number): Hit[] =>
    hits.map((h) => ({
      ...h,
      seconds: 2.7 + h.seconds + 0.03 * 3.2 * (Math.sin(h.seconds / 3.2 + phase) - Math.sin(phase)),
    }));

  it('finds the tempo, or its half or double, and along it nearly all that came is what was meant', () => {
    let [same, octave, many, said, right, meant, found] = [0, 0, 0, 0, 0, 0, 0];
    for (let seed = 1; seed <= 9; seed++) {
      const roll = dice(seed * 53);
      const bpm = 70 + Math.floor(roll() * 70);
      const known = someShelf(roll, 60, FOUR);
      const { hits, truth } = playFreely(roll, known, { ...USUAL, bpm, bars: 48, groove: seed % 3 });
      const moved = drifted(hits, roll() * 6);
      // What of the shelf comes tells half and double apart.
      const pulses = pulsesIn(moved, FOUR).slice(0, 4);
      const own = pulses.map((p) => recognise(known, { hits: steadied(moved, p.lay, p.bpm), meter: FOUR, bpm: p.bpm }));
      const pulse = pulses[bestPulse(own)];
      many++;
      if (!pulse) continue;
      const times = pulse.bpm / bpm;
      if (Math.abs(times - 2) < 0.06 || Math.abs(times - 0.5) < 0.02) octave++;
      if (Math.abs(times - 1) >= 0.03) continue;
      same++;
      const even = steadied(moved, pulse.lay, bpm);
      // Where it begins is told by beats: which of them is the 1 may be another.
      const by = Math.round((((even[0]?.seconds ?? 0) - (hits[0]?.seconds ?? 0)) * bpm) / 60) * GRID.quarters;
      const came = recognise(known, { hits: even, meter: FOUR, bpm });
      const is = (id: string, or: readonly string[], at: number): boolean =>
        truth.some((t) => (t.id === id || or.includes(t.id)) && t.at + by === at);
      said += came.length;
      right += came.filter((c) => is(c.id, c.or, c.at)).length;
      meant += truth.length;
      found += truth.filter((t) =>
        came.some((c) => (c.id === t.id || c.or.includes(t.id)) && c.at === t.at + by),
      ).length;
    }
    expect((same + octave) / many).toBeGreaterThanOrEqual(0.9);
    expect(same / many).toBeGreaterThanOrEqual(0.85);
    expect(right / said).toBeGreaterThanOrEqual(0.95);
    expect(found / meant).toBeGreaterThanOrEqual(0.8);
  });

  it('says no tempo of too few hits, and none of hits at one moment', () => {
    expect(pulsesIn(struck('R L R L', 0), FOUR)).toEqual([]);
    expect(
      pulsesIn(
        Array.from({ length: 40 }, () => ({ seconds: 1, limb: null, voice: null, velocity: 80 })),
        FOUR,
      ),
    ).toEqual([]);
  });
});

describe('a microphone, which tells only when and how loud', () => {
  it('says little rather than something wrong', () => {
    let [said, right] = [0, 0];
    for (let seed = 1; seed <= 6; seed++) {
      const roll = dice(seed * 19);
      const known = someShelf(roll, 40, FOUR);
      const { hits, truth } = playFreely(roll, known, { ...USUAL, groove: seed % 2 === 0 ? 0 : 2, ghostsLost: 0.2 });
      const heard: Hit[] = [];
      for (const h of hits) {
        const last = heard.at(-1);
        if (last && h.seconds - last.seconds < 0.03)
          heard[heard.length - 1] = { ...last, velocity: Math.max(last.velocity ?? 0, h.velocity ?? 0) };
        else heard.push({ ...h, voice: null });
      }
      const came = recognise(known, { hits: heard, meter: FOUR, bpm: 100 });
      said += came.length;
      right += came.filter((c) => truth.some((t) => (t.id === c.id || c.or.includes(t.id)) && t.at === c.at)).length;
    }
    expect(said).toBeGreaterThan(10);
    expect(right / said).toBeGreaterThanOrEqual(0.9);
  });
});

describe('rendered kits of three timbres, heard by the detector of the microphone', () => {
  const RATE = 44_100;
  const SOUND: Partial<Record<Voice, Struck>> = {
    kick: 'kick',
    snare: 'snare',
    'hat-closed': 'hat',
    ride: 'ride',
    'high-tom': 'tom',
    'floor-tom': 'tom',
  };
  const heardFrom = (hits: readonly Hit[], kit: number): Hit[] => {
    const seconds = (hits.at(-1)?.seconds ?? 0) + 1;
    const blows = hits.map((h) => ({
      at: Math.max(0, h.seconds),
      sound: SOUND[h.voice ?? 'snare'] ?? 'snare',
      gain: 0.25 + ((h.velocity ?? 60) / 127) ** 2,
    }));
    const samples = recorded({ rate: RATE, seconds, kit: randomKit(kit, RATE), blows, seed: kit, noise: -60 });
    // As after hitting softly and hard: the loudest is known, and the threshold a tenth of it.
    const first = new OnsetDetector({ rate: RATE, threshold: 0.002, loudest: 1 });
    const peaks = [...first.push(samples), ...first.settle()].map((o) => o.peak).sort((a, b) => a - b);
    const loudest = peaks[Math.floor(peaks.length * 0.97)] ?? 1;
    const detector = new OnsetDetector({ rate: RATE, threshold: 0.1 * loudest, loudest });
    return [...detector.push(samples), ...detector.settle()].map(({ sample, peak }) => ({
      seconds: sample / RATE,
      limb: null,
      voice: null,
      velocity: detector.velocityOf(peak),
    }));
  };

  it('nine of ten that are named are right, and where little can be told little is said', () => {
    let [said, right] = [0, 0];
    for (const kit of [1, 2, 3]) {
      const roll = dice(kit * 29);
      const known = someShelf(roll, 10, FOUR);
      const { hits, truth } = playFreely(roll, known, { ...USUAL, bars: 36, often: 0.5, groove: kit === 2 ? 2 : 9 });
      const came = recognise(known, { hits: heardFrom(hits, kit), meter: FOUR, bpm: 100 });
      said += came.length;
      right += came.filter((c) => truth.some((t) => (t.id === c.id || c.or.includes(t.id)) && t.at === c.at)).length;
    }
    expect(said).toBeGreaterThan(4);
    expect(right / said).toBeGreaterThanOrEqual(0.9);
  });
});

describe('hands that are told', () => {
  const single = phrase('singles', 'R! L R L R! L R L R! L R L R! L R L');
  const doubles = phrase('doubles', 'R! L R R L! R L L R! L R R L! R L L');

  it('part two phrases that sound alike, and say when they are swapped', () => {
    const at = (text: string) =>
      recognise([single, doubles], {
        hits: [...struck('R - - - - - - -', 0, true), ...struck(text, 64, true)],
        meter: FOUR,
        bpm: 100,
      });
    expect(at('R! L R R L! R L L R! L R R L! R L L').map((c) => [c.id, c.or, c.swapped])).toEqual([
      ['doubles', [], false],
    ]);
    expect(at('L! R L L R! L R R L! R L L R! L R R').map((c) => [c.id, c.or, c.swapped])).toEqual([
      ['doubles', [], true],
    ]);
    // By ear alone they are one.
    const [heard] = recognise([single, doubles], {
      hits: [...bed(3), ...struck('R! L R R L! R L L R! L R R L! R L L', 64)],
      meter: FOUR,
      bpm: 100,
    });
    expect([heard?.id, ...(heard?.or ?? [])].sort()).toEqual(['doubles', 'singles']);
  });
});

describe('what was different', () => {
  const rope = phrase('rope', ROPE);
  const said = (text: string, from: number): string | null => {
    const hits = [...bed(6), ...struck(text, from)];
    const played = { hits, meter: FOUR, bpm: 100 };
    const [came] = recognise([rope], played);
    return came
      ? differencesWords(differencesOf(rope.pattern, came, latticeOf(hits, FOUR, 100, GRID.sixteenths), FOUR), FOUR)
      : 'nothing';
  };

  it.each([
    [ROPE, 128, null],
    [ROPE, 130, 'An eighth later than it is written'],
    [ROPE, 132, 'A beat later than it is written'],
    [ROPE, 124, 'A beat earlier than it is written'],
    ['R! L R R K L! R K R L! R L', 128, 'Ended 4 sixteenths early'],
    ['R! L R R K L! R K - L! R L K R! L K', 128, '1 stroke left out'],
    ['R L R R K L R K R L R L K R L K', 128, 'Without its accents'],
  ])('%s from slot %s: %s', (text, from, words) => {
    expect(said(text, from)).toBe(words);
  });

  it('the judge of takes says how clean it was, whole, and nothing of what was cut short', () => {
    const clean = struck(ROPE, 128);
    const roll = dice(5);
    const loose = clean.map((h) => ({ ...h, seconds: h.seconds + 0.05 * bell(roll) }));
    const came = { at: 8 * BAR, from: 8 * BAR, until: 9 * BAR };
    expect(verdictOn(rope.pattern, came, clean, 100, 'usual')).toBe('clean');
    expect(verdictOn(rope.pattern, came, loose, 100, 'usual')).toBe('loose');
    expect(verdictOn(rope.pattern, { ...came, until: 9 * BAR - GRID.quarters }, clean, 100, 'usual')).toBeNull();
  });
});

describe('a groove of the shelf that keeps time', () => {
  const groove = phrase('groove', 'R+K - R - R+L! - R - R - R+K - R+L! - R -');
  const other = phrase('other', 'R+K - R - R+K - R - R+K - R - R+K - R -');
  const turn = (bar: number): Hit[] =>
    groove.pattern.strokes.map((s) => ({
      seconds: (16 * bar + s.at / GRID.sixteenths) * 0.15,
      limb: null,
      voice: s.voice,
      velocity: s.level === 'accent' ? 110 : 66,
    }));
  const roll = dice(8);
  const hits = Array.from({ length: 24 }, (_, b) => (b % 8 === 7 ? struck(ROPE, 16 * b) : turn(b)))
    .flat()
    .filter(() => roll() > 0.04);
  const of = { hits, meter: FOUR, bpm: 100 };

  it('is named once for all its turns, and another is not; what comes in it is named beside it', () => {
    const known = [groove, other, phrase('rope', ROPE)];
    const kept = keptTime(known, of);
    expect(kept.map((c) => [c.id, c.or, c.from / BAR, c.until / BAR])).toEqual([['groove', [], 0, 23]]);
    expect(kept[0]?.struck).toBeGreaterThan(0.9 * (kept[0]?.of ?? Infinity));
    expect(withKeptTime(recognise(known, of), kept).map((c) => [c.id, c.at / BAR])).toEqual([
      ['groove', 0],
      ['rope', 7],
      ['rope', 15],
      ['rope', 23],
    ]);
  });

  it('is none of three turns, and the same written twice stands beside it', () => {
    expect(keptTime([groove], { ...of, hits: [0, 1, 2].flatMap(turn) })).toEqual([]);
    const twin = { ...groove, id: 'twin' };
    expect(keptTime([groove, twin], of).map((c) => [c.id, c.or])).toEqual([['groove', ['twin']]]);
  });
});

describe('bars of a recording', () => {
  it('are held by what a phrase is, not by what is played round it: there may be nothing else', () => {
    const rope = phrase('rope', ROPE);
    const other = phrase('other', 'R! L R R L! R L L R! L R R L! R L L');
    const hits = [...struck(ROPE, 0), ...struck(ROPE, 16)];
    const of = { hits, meter: FOUR, bpm: 100 };
    expect(recognise([rope, other], { ...of, isPart: true }).map((c) => [c.id, c.at / BAR])).toEqual([
      ['rope', 0],
      ['rope', 1],
    ]);
    expect(recognise([other], { ...of, isPart: true })).toEqual([]);
  });

  it('in another meter than was thought are found as well', () => {
    const rope = phrase('rope', ROPE);
    const hits = [...bed(8), ...struck(ROPE, 128), ...struck('R - R - R! - R -', 144), ...struck(ROPE, 160)];
    for (const m of [FOUR, meter(3, 4), meter(5, 4)])
      expect([m.beats, recognise([rope], { hits, meter: m, bpm: 100 }).map((c) => c.at / GRID.sixteenths)]).toEqual([
        m.beats,
        [128, 160],
      ]);
  });
});

describe('what just came', () => {
  it('is named within a beat of its end, and not before, nor again', () => {
    const rope = phrase('rope', ROPE);
    const hits = [...bed(6), ...struck(ROPE, 128)];
    const at = (slot: number): string | null => {
      const now = slot * GRID.sixteenths;
      const until = hits.filter((h) => h.seconds < slot * 0.15);
      return justCame([rope], { hits: until, meter: FOUR, bpm: 100 }, now, GRID.quarters)?.id ?? null;
    };
    expect(at(136)).toBeNull();
    expect([at(144), at(146)]).toEqual(['rope', 'rope']);
    expect(at(160)).toBeNull();
  });

  it('names most of what came within a beat, in odd meters', () => {
    let [named, many] = [0, 0];
    for (const text of ['7/8', '5/4', '6/8', '3/4']) {
      const m = parseMeter(text)!;
      const roll = dice(77);
      const known = someShelf(roll, 30, m);
      const { hits, truth } = playFreely(roll, known, { ...USUAL, meter: m, groove: 9, bars: 60 });
      const second = (tick: number): number => (tick * 60) / (quarterTempo(100, m) * TICKS_PER_QUARTER);
      // Of what is said afterwards, when all was heard.
      const after = recognise(known, { hits, meter: m, bpm: 100 });
      const own = truth.filter((t) => after.some((c) => c.at === t.at && (c.id === t.id || c.or.includes(t.id))));
      for (const t of own) {
        const now = t.until + GRID.sixteenths;
        const until = hits.filter((h) => h.seconds < second(now));
        const came = justCame(known, { hits: until, meter: m, bpm: 100 }, now, GRID.quarters);
        if (came && (came.id === t.id || came.or.includes(t.id))) named++;
      }
      many += own.length;
    }
    expect(many).toBeGreaterThan(40);
    expect(named / many).toBeGreaterThanOrEqual(0.75);
  });
});

describe('figures that are nobody’s', () => {
  const FIGURE = 'R! L K R! L K R! L K R! L K R! L R! L';
  const GROOVE: readonly [number, Voice][] = [
    ...[0, 2, 4, 6, 8, 10, 12, 14].map((s): [number, Voice] => [s, 'hat-closed']),
    [4, 'snare'],
    [12, 'snare'],
    [0, 'kick'],
    [10, 'kick'],
  ];
  const sitting = (roll: () => number, at: readonly number[], bars: number): Hit[] => {
    const bare = Array.from({ length: bars }, (_, b) =>
      at.includes(b)
        ? struck(FIGURE, 16 * b)
        : GROOVE.map(([s, voice]): Hit => ({ seconds: (16 * b + s) * 0.15, limb: null, voice, velocity: 70 })),
    ).flat();
    return bare.map((h) => ({ ...h, seconds: Math.max(0, h.seconds + 0.008 * bell(roll)) }));
  };

  it('finds what came three times with its places, and never the groove', () => {
    const hits = sitting(dice(3), [5, 13, 22], 32);
    const found = figuresIn({ hits, meter: FOUR, bpm: 100 }, []);
    expect(found).toHaveLength(1);
    expect(found[0]?.at.map((t) => Math.floor(t / BAR))).toEqual([5, 13, 22]);
    expect(found[0]?.pattern.strokes.filter((s) => s.limb === 'K')).toHaveLength(4);
    expect(figuresIn({ hits: sitting(dice(3), [], 32), meter: FOUR, bpm: 100 }, [])).toEqual([]);
    expect(figuresIn({ hits: sitting(dice(3), [5, 13], 32), meter: FOUR, bpm: 100 }, [])).toEqual([]);
  });

  it('says nothing of what was recognised, and knows one with a stroke left out', () => {
    const known = phrase('known', FIGURE);
    const hits = sitting(dice(4), [5, 13, 22], 32);
    const played = { hits, meter: FOUR, bpm: 100 };
    expect(figuresIn(played, recognise([known], played))).toEqual([]);
    const less = hits.filter((h) => Math.abs(h.seconds - (16 * 13 + 9) * 0.15) > 0.06);
    const [near] = figuresIn({ ...played, hits: less }, []);
    expect([near?.at.length, near?.exact]).toEqual([3, false]);
  });

  it('holds against counting every window by brute force', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const roll = dice(seed * 7);
      const at = [3, 9, 14, 20].slice(0, 2 + (seed % 3));
      const hits = sitting(roll, at, 26);
      const found = figuresIn({ hits, meter: FOUR, bpm: 100 }, []);
      // Bars that are no groove and sound alike, three of them or more, counted bar by bar.
      const lattice = latticeOf(hits, FOUR, 100, GRID.sixteenths);
      const bars = Array.from({ length: 26 }, (_, b) =>
        lattice.slots
          .slice(16 * b, 16 * b + 16)
          .map((s) => [...new Set(s.map((h) => `${h.kind}${h.voice ?? ''}`))].sort().join('+'))
          .join('|'),
      );
      const often = [...new Set(bars)].map((b) => bars.filter((o) => o === b).length).filter((n) => n >= 3 && n < 9);
      expect([seed, found.length > 0]).toEqual([seed, often.length > 0]);
    }
  });
});

describe('calls', () => {
  const all: readonly Callable[] = Array.from({ length: 8 }, (_, i) => ({
    id: `p${i}`,
    kind: i < 4 ? 'fill' : 'lick',
    chance: 0.9,
    recall: 0.5,
  }));

  it('never the same twice in a row, kinds mixed, and what is let go or can be played more often', () => {
    const roll = dice(9);
    const count = (own: readonly Callable[]): readonly string[] => {
      const before: string[] = [];
      for (let i = 0; i < 40; i++) {
        const next = nextCall(own, before.slice(-8), roll());
        expect(next?.id).not.toBe(before.at(-1));
        before.push(next?.id ?? '');
      }
      return before;
    };
    const even = count(all);
    const changes = even.slice(1).filter((id, i) => Number(id.slice(1)) < 4 !== Number((even[i] ?? '').slice(1)) < 4);
    expect(changes.length / 39).toBeGreaterThan(0.55);
    const uneven = count(all.map((c, i) => ({ ...c, recall: i === 0 ? 0.05 : 0.95, chance: i === 7 ? 0 : 0.9 })));
    const times = (id: string): number => uneven.filter((o) => o === id).length;
    expect(times('p0')).toBeGreaterThan(times('p1'));
    expect(times('p7')).toBeLessThan(times('p0'));
    expect(nextCall(all.slice(0, 1), ['p0'], 0.9)?.id).toBe('p0');
  });

  const net = phrase('net', 'R! L R L K R! L K');
  const played = (text: string, from: number) => ({ hits: [...bed(4), ...struck(text, from)], meter: FOUR, bpm: 100 });

  it.each([
    ['R! L R L K R! L K', 64, 'at once', 64],
    ['R! L R L K R! - K', 64, 'at once', 64],
    ['R! L R L K R! L K', 66, 'at once', 66],
    ['R! L R L K R! L K', 68, 'late', 68],
    ['R! L R L K R! L K', 76, 'late', 76],
    ['R - - - R - - -', 64, 'not at all', null],
    ['K K K K K K K K', 64, 'not at all', null],
  ])('%s from slot %s: %s', (text, from, came, at) => {
    const heard = heardCall(net.pattern, played(text, from), 4 * BAR, 6 * BAR);
    expect(heard).toEqual({ came, at: at === null ? null : at * GRID.sixteenths });
  });

  it('says a round in sentences', () => {
    const done = (name: string, came: 'at once' | 'late' | 'not at all', clean: boolean | null) => ({
      name,
      came,
      clean,
    });
    expect(
      callsWords([
        done('Net', 'at once', true),
        done('Rope', 'late', false),
        done('Lamp', 'not at all', null),
        done('Lamp', 'not at all', null),
      ]),
    ).toBe('1 of 4 came at once, 1 late. Clean: 1 of 2. Lamp did not come.');
    expect(callsWords([done('Net', 'at once', null)])).toBe('It came at once.');
  });
});

describe('trading', () => {
  const shelf = [phrase('net', 'R! L R L K R! L K'), phrase('rope', ROPE), phrase('lamp', 'R! R L L R! R L L')];

  it('fills its bars with whole phrases of the shelf and goes not beyond', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const trade = tradeOf(shelf, seed % 2 === 0 ? 2 : 4, FOUR, dice(seed));
      expect(trade?.pattern.length).toBe((seed % 2 === 0 ? 2 : 4) * BAR);
      expect(trade?.ids.length).toBeGreaterThan(0);
      expect(trade?.pattern.strokes.every((s) => s.at < trade.pattern.length)).toBe(true);
    }
    expect(tradeOf([phrase('long', ROPE)], 1, parseMeter('3/4')!, () => 0)).toBeNull();
  });

  const sent = { ids: ['rope'], pattern: { ...phrase('r', `${ROPE} ${ROPE}`).pattern, groups: [] } };
  it.each([
    [`${ROPE} ${ROPE}`, 'the same'],
    [`${ROPE} R! - R R K L! R K R - R - K - L K`, 'one change'],
    ['R! R L L R! R L L - - - - - - - - - - - - - - - - - - - - - - - -', 'another'],
    ['R - - R - - R - - - R - - - - - R - - - R - - - - - - - - - - -', 'own'],
    ['- - - - - - - - - - - - - - - -', 'nothing'],
  ])('of %s it says %s', (text, kind) => {
    const hits = [...bed(4), ...struck(text, 128)];
    const play = { hits, meter: FOUR, bpm: 100 };
    const answer = answerTo(sent, play, 8 * BAR, recognise(shelf, play));
    expect(answer.kind).toBe(kind);
    if (answer.kind === 'one change') expect([answer.missing, answer.bars]).toEqual([4, [2]]);
    if (answer.kind === 'another') expect(answer.ids).toEqual(['lamp']);
  });
});

describe('recall and the answers of the Log', () => {
  const row = (id: string, more: Partial<FreeSitting>): FreeSitting => ({
    id,
    kind: 'free',
    at: 0,
    seconds: 60,
    meter: '4/4',
    bpm: 100,
    found: false,
    source: 'midi',
    groove: null,
    against: 3,
    hits: [],
    heard: 0,
    came: [],
    figures: [],
    calls: [],
    changed: 1,
    ...more,
  });
  const came = (id: string, at: number, or: readonly string[] = []) => ({
    phrase: id,
    or: [...or],
    at,
    from: at,
    until: at + BAR,
    chance: 1,
    struck: 8,
    of: 8,
    swapped: null,
  });

  it('counts uses by hand, with where and how fast; what was called, dropped or played by a program is none', () => {
    const sittings = [
      row('a', { came: [came('net', 0), came('net', 4 * BAR), came('rope', 2 * BAR + GRID.quarters)], at: 5 }),
      row('b', { came: [came('net', 8 * BAR)], bpm: 120, at: 9 }),
      row('c', { kind: 'calls', came: [came('net', 0)] }),
      row('d', { source: 'simulated', came: [came('lamp', 0)] }),
      row('e', { dropped: true, came: [came('lamp', 0)] }),
    ];
    const uses = usesIn(sittings);
    expect(uses.map((u) => [u.phrase, u.times, u.sittings, u.slowest, u.fastest, u.lastAt])).toEqual([
      ['net', 3, 2, 100, 120, 9],
      ['rope', 1, 1, 100, 100, 5],
    ]);
    expect(uses.map(useWords)).toEqual([
      '3 times in 2 sittings, at 100–120, always from the 1',
      'once, at 100, from 2',
    ]);
    expect(
      neverUsed(
        ['net', 'lamp', 'rope', 'cold'].map((id, i) => ({ id, clean: id === 'cold' ? null : 90, lastAt: i })),
        uses,
      ),
    ).toEqual(['lamp']);
  });

  it('keeps recall apart: it falls with days, rises with uses, and what never came is not there', () => {
    const day = (n: number) => ({ day: n, came: 'at once' as const });
    const [soon, later] = [recallOn([day(10)], 11) ?? 0, recallOn([day(10)], 40) ?? 1];
    expect(soon).toBeGreaterThan(later);
    expect(recallOn([day(10), day(14), day(22)], 40)).toBeGreaterThan(later);
    expect(recallOn([{ day: 10, came: 'not at all' }], 10)).toBeLessThan(0.2);
    const events = recallEvents(
      [
        row('a', { came: [came('net', 0)], at: 3 }),
        row('b', { kind: 'calls', calls: [{ phrase: 'net', due: 0, came: 'late', clean: null }], at: 7 }),
      ],
      (at) => at,
    );
    expect(events.get('net')).toEqual([
      { day: 3, came: 'at once' },
      { day: 7, came: 'late' },
    ]);
  });

  it('adds up figures of more sittings, the longest first', () => {
    const figure = (text: string, at: number[]) => ({ text, grid: GRID.sixteenths, start: 0, at, exact: true });
    const all = figuresOf([
      row('a', { figures: [figure('R L K', [1, 2, 3]), figure('R L R L K K', [5, 6, 7])] }),
      row('b', { figures: [figure('R L K', [1, 2, 3, 4])] }),
    ]);
    expect(all.map((f) => [f.text, f.times, f.sittings])).toEqual([
      ['R L R L K K', 3, 1],
      ['R L K', 7, 2],
    ]);
  });

  it('says what came of a sitting by names', () => {
    expect(cameWords(['a', 'b', 'c', 'd', 'a'], 9)).toBe('a came twice, b once, c once and 1 more.');
    expect(cameWords(['a', 'b'], 9)).toBe('a and b came, each once.');
    expect(cameWords(['a', 'b', 'c', 'd'], 9)).toBe('a, b, c and 1 more came, each once.');
    expect(cameWords(['a'], 9)).toBe('a came once.');
  });
});

describe('what was played, drawn', () => {
  it('has the strokes that were struck, with the hands of the phrase where nothing told them', () => {
    const rope = phrase('rope', ROPE).pattern;
    const lattice = latticeOf([...bed(2), ...struck(ROPE, 32)], FOUR, 100, GRID.sixteenths);
    const limbs = (p: Pattern): string => p.strokes.map((s) => s.limb).join(' ');
    const own = playedPattern(lattice, FOUR, 2 * BAR, 3 * BAR, { pattern: rope, at: 2 * BAR, swapped: false });
    expect(limbs(own)).toBe(limbs(rope));
    const other = playedPattern(lattice, FOUR, 2 * BAR, 3 * BAR, { pattern: rope, at: 2 * BAR, swapped: true });
    expect(limbs(other)).toBe(rope.strokes.map((s) => (isHand(s.limb) ? otherHand(s.limb) : s.limb)).join(' '));
  });
});
