import { beatTicks, parseMeter, quarterTempo, ticks, TICKS_PER_QUARTER, USUAL_SCHOOLS } from '../time';
import { parseStrokeText, type Limb } from '../stroke';
import { patternOfText, type Pattern } from '../pattern';
import { fixKindOf, type FixKind } from '../drill';
import { expectedOf } from '../rendition';
import {
  align,
  uncountedHits,
  findingsOf,
  firstFix,
  findingWords,
  readTake,
  verdictOf,
  type Finding,
  type Hit,
} from '.';

// Players that share nothing with the judge: their own chance, their own clock, plain loops over the written rhythm.

/** A generator of its own (xorshift), so that the judge's simulated player and these have nothing in common. */
function dice(seed: number): () => number {
  let x = (seed * 2654435761 + 97) >>> 0 || 1;
  return () => {
    x ^= x << 13;
    x >>>= 0;
    x ^= x >>> 17;
    x ^= x << 5;
    x >>>= 0;
    return x / 4294967296;
  };
}
/** The sum of twelve even chances is as good as a Gaussian. */
const gauss = (roll: () => number): number => Array.from({ length: 12 }, roll).reduce((a, b) => a + b, -6);

/** Text, meter, parts of a quarter to a slot. */
const RHYTHMS: readonly (readonly [text: string, meter: string, perQuarter: number])[] = [
  ['R+K - R - R+L - R - R+K - R+K - R+L - R -', '4/4', 4],
  ['R L R R L R L L R L R R L R L L', '4/4', 4],
  ['R L R L R L R L R L R L R L R L', '4/4', 4],
  ['R L K R L K R L K R L K', '4/4', 3],
  ['R+K R R+L R R+K R+K R+L R', '4/4', 2],
  ['R - L R - K R L K - R L', '3/4', 4],
  ['R+K R+H R+L', '3/4', 1],
  ['R+K - R - R - R+L - R - R+K -', '6/8', 4],
  ['R L R L R L K - R L K -', '6/8', 4],
  ['R+K - R - R+L - R - R+K - R+L - R -', '7/8', 4],
  ['R L R L K R L R L K R L K -', '7/8', 4],
];

interface Struck {
  readonly index: number;
  readonly turn: number;
  /** Ticks from the first bar line. */
  readonly tick: number;
  readonly limb: Limb;
  seconds: number;
  voice: Hit['voice'];
}

interface Setting {
  readonly pattern: Pattern;
  readonly bpm: number;
  readonly loops: number;
  readonly roll: () => number;
  readonly perTick: number;
  readonly beat: number;
  readonly slot: number;
  readonly loop: number;
  readonly strokes: Struck[];
}

function setting(seed: number, only: (r: (typeof RHYTHMS)[number]) => boolean = () => true, least = 2): Setting {
  const roll = dice(seed);
  for (let i = 0; i < 5; i++) roll();
  const rhythms = RHYTHMS.filter(only);
  const [text, meterText, per] = rhythms[Math.floor(roll() * rhythms.length)]!;
  const read = parseStrokeText(text);
  const meter = parseMeter(meterText)!;
  const written = patternOfText(read.ok ? read.value : [], meter, ticks(TICKS_PER_QUARTER / per));
  // In grooves the right hand is on the hat, or, now and then, everything on the snare.
  const onHat = text.includes('+') && roll() < 0.7;
  const strokes0 = written.strokes.map((s) => (s.limb === 'R' && onHat ? { ...s, voice: 'hat-closed' as const } : s));
  const pattern: Pattern = { ...written, strokes: strokes0 };
  const bpm = 60 + Math.floor(roll() * 141);
  const loops = least + Math.floor(roll() * (17 - least));
  const perTick = 60 / (quarterTempo(bpm, meter) * TICKS_PER_QUARTER);
  const slots = text.split(' ').length;
  const loop = slots * (TICKS_PER_QUARTER / per);
  const strokes: Struck[] = [];
  for (let turn = 0; turn < loops; turn++)
    pattern.strokes.forEach((s, index) => {
      const tick = turn * loop + s.at;
      strokes.push({ index, turn, tick, limb: s.limb, seconds: tick * perTick, voice: s.voice });
    });
  return {
    pattern,
    bpm,
    loops,
    roll,
    perTick,
    beat: beatTicks(meter) * perTick,
    slot: (TICKS_PER_QUARTER / per) * perTick,
    loop: loop * perTick,
    strokes,
  };
}

/** Whether a stroke falls together with another of its voice: whose fault it is cannot be heard. */
function unison({ pattern }: Setting, index: number): boolean {
  const own = pattern.strokes[index]!;
  return pattern.strokes.some((s, i) => i !== index && s.at === own.at && s.voice === own.voice);
}

type Knows = 'limbs' | 'voices' | 'nothing';
const KNOWS: readonly Knows[] = ['limbs', 'voices', 'nothing'];

/** What a source tells of strokes: the limbs, the voices, or nothing, where a unison is one sound. */
function hitsOf(strokes: readonly Struck[], knows: Knows): Hit[] {
  const all = [...strokes].sort((a, b) => a.seconds - b.seconds);
  if (knows !== 'nothing')
    return all.map((s) => ({
      seconds: s.seconds,
      limb: knows === 'limbs' ? s.limb : null,
      voice: s.voice,
      velocity: knows === 'limbs' ? null : 80,
    }));
  const out: Hit[] = [];
  const moments = new Set<number>();
  for (const s of all) {
    if (moments.has(s.tick)) continue;
    moments.add(s.tick);
    out.push({ seconds: s.seconds, limb: null, voice: null, velocity: null });
  }
  return out;
}

/** What the log must make of each finding. */
const KIND_OF: Readonly<Record<Finding['kind'], FixKind>> = {
  silence: 'silence',
  part: 'part',
  stops: 'part',
  begins: 'late',
  shift: 'late',
  'off-beats': 'late',
  limb: 'late',
  place: 'late',
  tempo: 'tempo',
  drift: 'tempo',
  swing: 'swing',
  'left-out': 'left-out',
  grace: 'ornament',
  extra: 'extra',
  uneven: 'uneven',
  hands: 'heights',
  heights: 'heights',
};

function judged(set: Setting, hits: readonly Hit[]) {
  const quarters = 60 / (set.perTick * TICKS_PER_QUARTER);
  const expected = expectedOf(set.pattern, quarters, 0, set.loops);
  const reading = readTake(expected, hits, align(expected, hits, { beat: set.beat }));
  const findings = findingsOf(reading, set.slot);
  const fix = firstFix(set.pattern, reading, set.slot, USUAL_SCHOOLS);
  const words = fix ? findingWords(fix.finding) : '';
  const [first] = findings;
  if (first && (!fix || fixKindOf(fix.finding) !== KIND_OF[first.kind])) throw new Error(`${first.kind}: ${words}`);
  return {
    reading,
    findings,
    kinds: findings.map((f) => f.kind),
    verdict: verdictOf(reading, set.slot),
    words,
  };
}

const scattered = (set: Setting, ms: number): Struck[] =>
  set.strokes.map((s) => ({ ...s, seconds: s.seconds + (gauss(set.roll) * ms) / 1000 }));

/** The share of so many players for which it holds; the first for which it does not are told. */
function share(
  many: number,
  holds: (seed: number) => true | object | null,
): { rate: number; of: number; wrong: object[] } {
  let [right, of] = [0, 0];
  const wrong: object[] = [];
  for (let seed = 1; seed <= many; seed++) {
    const got = holds(seed);
    if (got === null) continue;
    of++;
    if (got === true) right++;
    else if (wrong.length < 4) wrong.push({ seed, ...got });
  }
  return { rate: right / of, of, wrong };
}

const told = (name: string, found: { rate: number; of: number; wrong: object[] }): void => {
  if (process.env['TELL']) console.log(name, found.rate.toFixed(4), 'of', found.of, JSON.stringify(found.wrong));
};

describe('players with no fault', () => {
  it('scatter 4–16 ms: no limb and no place is named, in 98 %', () => {
    const found = share(600, (seed) => {
      const set = setting(seed);
      const ms = 4 + 12 * set.roll();
      const { findings, words } = judged(set, hitsOf(scattered(set, ms), KNOWS[seed % 3]!));
      const blamed = findings.filter((f) => f.kind === 'limb' || f.kind === 'place' || f.kind === 'swing');
      return (
        blamed.length === 0 || {
          ms,
          words,
          rhythm: set.pattern.strokes.length,
          loops: set.loops,
          bpm: set.bpm,
          kinds: findings.map((f) => f.kind),
        }
      );
    });
    told('no fault', found);
    expect(found.rate).toBeGreaterThanOrEqual(0.98);
  });
  it('scatter up to 6 ms: clean', () => {
    const found = share(300, (seed) => {
      const set = setting(seed + 5000);
      const { verdict, words } = judged(set, hitsOf(scattered(set, 2 + 3 * set.roll()), KNOWS[seed % 3]!));
      return verdict === 'clean' || { words, bpm: set.bpm, loops: set.loops, n: set.pattern.strokes.length };
    });
    told('clean', found);
    expect(found.rate).toBeGreaterThanOrEqual(0.98);
  });
});

describe('one fault', () => {
  it('a limb 12 ms or more late or early: that limb is named, and the right way, in 97 %', () => {
    const found = share(500, (seed) => {
      const set = setting(seed + 10_000);
      const limbs = [...new Set(set.pattern.strokes.map((s) => s.limb))];
      const limb = limbs[Math.floor(set.roll() * limbs.length)]!;
      const many = set.strokes.filter((s) => s.limb === limb).length;
      if (many < 8) return null;
      const off = (12 + 14 * set.roll()) * (set.roll() < 0.5 ? -1 : 1);
      const hits = hitsOf(
        scattered(set, 2 + 4 * set.roll()).map((s) =>
          s.limb === limb ? { ...s, seconds: s.seconds + off / 1000 } : s,
        ),
        'limbs',
      );
      const { findings, words } = judged(set, hits);
      const named = findings.find((f) => f.kind === 'limb' || (f.kind === 'swing' && f.limb !== null));
      const right = named && 'limb' in named && named.limb === limb && Math.sign(named.off) === Math.sign(off);
      return (
        right || {
          limb,
          off,
          many,
          words,
          bpm: set.bpm,
          loops: set.loops,
          n: set.pattern.strokes.length,
          kinds: findings,
        }
      );
    });
    told('limb', found);
    expect(found.rate).toBeGreaterThanOrEqual(0.97);
  });
  it('one place 18 ms off its limb: that place is named, in 97 %', () => {
    const found = share(500, (seed) => {
      const set = setting(seed + 20_000, () => true, 4);
      const index = Math.floor(set.roll() * set.pattern.strokes.length);
      if (unison(set, index)) return null;
      const off = (18 + 10 * set.roll()) * (set.roll() < 0.5 ? -1 : 1);
      if (off < 0 && index === 0) return null;
      const knows = KNOWS[seed % 2]!;
      const hits = hitsOf(
        scattered(set, 2 + 4 * set.roll()).map((s) =>
          s.index === index ? { ...s, seconds: s.seconds + off / 1000 } : s,
        ),
        knows,
      );
      const { findings, words } = judged(set, hits);
      const named = findings.find((f) => f.kind === 'place' || f.kind === 'limb');
      const right = named && 'index' in named && named.index === index && Math.sign(named.off) === Math.sign(off);
      return (
        right || {
          index,
          off,
          words,
          knows,
          bpm: set.bpm,
          loops: set.loops,
          n: set.pattern.strokes.length,
          kinds: findings,
        }
      );
    });
    told('place', found);
    expect(found.rate).toBeGreaterThanOrEqual(0.97);
  });
  it('a stroke late by up to 45 % of its slot in every loop is late, never left out, in 97 %', () => {
    const found = share(400, (seed) => {
      const set = setting(seed + 30_000);
      const index = Math.floor(set.roll() * set.pattern.strokes.length);
      if (unison(set, index)) return null;
      const off = (0.2 + 0.25 * set.roll()) * set.slot;
      const knows = KNOWS[seed % 2]!;
      const hits = hitsOf(
        scattered(set, 2 + 3 * set.roll()).map((s) => (s.index === index ? { ...s, seconds: s.seconds + off } : s)),
        knows,
      );
      const { reading, findings, words } = judged(set, hits);
      const late = findings.some((f) => 'index' in f && f.index === index && 'off' in f && f.off > 0);
      return (
        (reading.missed === 0 && reading.extra === 0 && (late || off < 0.012)) || {
          index,
          off,
          words,
          knows,
          n: set.pattern.strokes.length,
          bpm: set.bpm,
          loops: set.loops,
          kinds: findings.map((f) => f.kind),
        }
      );
    });
    told('45 %', found);
    expect(found.rate).toBeGreaterThanOrEqual(0.97);
  });
});

describe('a take as a whole', () => {
  const whole = (
    name: string,
    kind: string,
    change: (set: Setting, strokes: Struck[]) => Struck[] | null,
    right: (set: Setting, got: ReturnType<typeof judged>) => boolean = () => true,
  ): void =>
    it(`${name} is named first, in 97 %`, () => {
      const found = share(300, (seed) => {
        const set = setting(seed + 40_000);
        const strokes = change(set, scattered(set, 2 + 6 * set.roll()));
        if (!strokes) return null;
        const got = judged(set, hitsOf(strokes, KNOWS[seed % 3]!));
        const [first] = got.kinds;
        return (
          (first === kind && right(set, got)) || {
            words: got.words,
            kinds: got.kinds,
            knows: KNOWS[seed % 3],
            bpm: set.bpm,
            loops: set.loops,
            n: set.pattern.strokes.length,
            per: set.slot,
            tempo: got.reading.tempo,
            shift: got.reading.shift,
          }
        );
      });
      told(name, found);
      expect(found.of).toBeGreaterThan(100);
      expect(found.rate).toBeGreaterThanOrEqual(0.97);
    });
  let rate = 1;
  whole(
    'a steady tempo 1–5 % off',
    'tempo',
    (set, all) => {
      const off = (0.01 + 0.04 * set.roll()) * (set.roll() < 0.5 ? 1 : -1);
      rate = 1 + off;
      return all.map((s) => ({ ...s, seconds: s.seconds * rate }));
    },
    (_, { reading }) => Math.abs(reading.tempo * rate - 1) < 0.004,
  );
  whole('all of it 60–150 ms late', 'shift', (set, all) => {
    const late = 0.06 + 0.09 * set.roll();
    return all.map((s) => ({ ...s, seconds: s.seconds + late }));
  });
  whole('begun a beat late', 'begins', (set, all) => all.map((s) => ({ ...s, seconds: s.seconds + set.beat })));
  whole('begun a beat late, the end cut off', 'begins', (set, all) =>
    all.map((s) => ({ ...s, seconds: s.seconds + set.beat })).filter((s) => s.seconds < set.loop * set.loops - 0.03),
  );
  whole(
    'only half of the loop',
    'part',
    (set, all) => {
      const half = Math.round(set.loop / set.perTick / 2);
      const first = set.roll() < 0.5;
      const inLoop = (s: Struck): boolean => s.tick % (half * 2) < half === first;
      const out = set.pattern.strokes.filter((s) => s.at < half !== first).length;
      return out < 2 ? null : all.filter(inLoop);
    },
    (_, { words }) => /half/.test(words),
  );
  let percent = 50;
  whole(
    'swung 56–66 %',
    'swing',
    (set, all) => {
      percent = 56 + 10 * set.roll();
      const unit = set.slot / set.perTick < TICKS_PER_QUARTER / 3 ? TICKS_PER_QUARTER / 2 : TICKS_PER_QUARTER;
      const off = (s: Struck): boolean => (s.tick % unit) * 2 === unit;
      const places = new Set(all.filter(off).map((s) => s.index)).size;
      if (places < 3) return null;
      const late = ((percent - 50) / 100) * unit * set.perTick;
      return all.map((s) => (off(s) ? { ...s, seconds: s.seconds + late } : s));
    },
    (_, { findings }) => findings.some((f) => f.kind === 'swing' && Math.abs(f.percent - percent) < 2.5),
  );
});

describe('two faults', () => {
  it('a limb and one stroke of another: what costs the ear more is said first, in 95 %', () => {
    const found = share(700, (seed) => {
      const set = setting(seed + 80_000, ([text]) => !text.includes('+'), 4);
      const own = set.pattern.strokes.map((s) => s.limb);
      const [limb, other] = set.roll() < 0.5 ? (['L', 'R'] as const) : (['R', 'L'] as const);
      const others = own.flatMap((l, i) => (l === other ? [i] : []));
      const at = others[Math.floor(set.roll() * others.length)];
      const many = own.filter((l) => l === limb).length;
      if (at === undefined || many < 3 || others.length < 3) return null;
      const [byLimb, byPlace] = [10 + 25 * set.roll(), 15 + 50 * set.roll()];
      // Worked out here by what each adds to the mean square of the take.
      const [limbCosts, placeCosts] = [many * byLimb ** 2, byPlace ** 2];
      // At the bound of what is messy either may be it.
      const messy = [byLimb, byPlace].map((ms) => (ms > 24 ? 1 : ms < 14 ? 0 : NaN));
      if (Math.max(limbCosts, placeCosts) < 1.6 * Math.min(limbCosts, placeCosts) || messy[0] !== messy[1]) return null;
      // Far off it would be another stroke's; and one that is a slot off is no lateness.
      if (byPlace > 300 * set.slot) return null;
      const hits = scattered(set, 3).map((s) => ({
        ...s,
        seconds: s.seconds + (s.limb === limb ? byLimb : s.index === at ? byPlace : 0) / 1000,
      }));
      const { findings, words } = judged(set, hitsOf(hits, 'limbs'));
      const [first] = findings;
      const isLimb = first?.kind === 'limb' || (first?.kind === 'swing' && first.limb === limb);
      const right = limbCosts > placeCosts ? isLimb : first?.kind === 'place' && first.index === at;
      return right || { limb, byLimb, byPlace, many, words, n: own.length, kinds: findings };
    });
    told('two faults', found);
    expect(found.of).toBeGreaterThan(60);
    expect(found.rate).toBeGreaterThanOrEqual(0.95);
  });
  it('left hand 12 ms late and one right 40 ms late in every loop: the one that is heard', () => {
    const set = setting(3, ([text]) => text === 'R L R R L R L L R L R R L R L L', 8);
    const late = (s: Struck): number => (s.limb === 'L' ? 0.012 : s.index === 5 ? 0.04 : 0);
    const hits = scattered(set, 3).map((s) => ({ ...s, seconds: s.seconds + late(s) }));
    expect(judged(set, hitsOf(hits, 'limbs')).findings[0]).toMatchObject({ kind: 'place', index: 5 });
  });
});

describe('stick heights as a condition', () => {
  it('accents so many decibels above ghosts: clean where they are, messy and named where they are not', () => {
    const text = 'R! l r l R! l r l';
    const read = parseStrokeText(text);
    const pattern = patternOfText(read.ok ? read.value : [], parseMeter('4/4')!, ticks(TICKS_PER_QUARTER / 4));
    const expected = expectedOf(pattern, 90, 0, 6);
    for (let heard = 2; heard <= 16; heard += 0.5) {
      const roll = dice(Math.round(10 * heard));
      const hits = expected.map((e): Hit => {
        const ghost = 20;
        const level = pattern.strokes[e.index]!.level === 'accent' ? ghost * 10 ** (heard / 20) : ghost;
        return { seconds: e.seconds + (gauss(roll) * 3) / 1000, limb: e.limb, voice: e.voice, velocity: level };
      });
      const reading = readTake(expected, hits, align(expected, hits, { beat: 60 / 90 }));
      for (const wanted of [6, 9, 12]) {
        const verdict = verdictOf(reading, 1 / 6, 'usual', wanted);
        const [first] = findingsOf(reading, 1 / 6, 'usual', wanted);
        const short = wanted - heard;
        expect([heard, wanted, verdict]).toEqual([heard, wanted, short > 2 ? 'loose' : short > 1 ? 'close' : 'clean']);
        expect(first?.kind ?? null).toBe(short > 1 ? 'heights' : null);
      }
      // Not asked for, it is named only where accents are hardly heard, and makes nothing messy.
      expect(verdictOf(reading, 1 / 6)).not.toBe('loose');
    }
    const soft = expected.map((e): Hit => ({ ...e, velocity: 40 }));
    const reading = readTake(expected, soft, align(expected, soft, { beat: 60 / 90 }));
    const fix = firstFix(pattern, reading, 1 / 6, USUAL_SCHOOLS, 'usual', 6);
    expect(fix && findingWords(fix.finding)).toBe('Accents and ghosts are too alike. Accents 1× as loud; aim for 2×.');
    // Keys tell nothing of loudness: there it is not judged.
    const keys = expected.map((e): Hit => ({ ...e, velocity: null }));
    expect(verdictOf(readTake(expected, keys, align(expected, keys)), 1 / 6, 'usual', 12)).toBe('clean');
  });
});

describe('odd loops', () => {
  it('five slots over 16ths, seven over eighths: whatever is late there, nobody is told of swing', () => {
    let late = 0;
    for (let seed = 1; seed <= 120; seed++) {
      const [text, meterText, per] = (
        [
          ['R L R L K', '5/16', 4],
          ['R L R L R L K', '7/8', 2],
          ['R L K R K R L', '7/16', 4],
        ] as const
      )[seed % 3]!;
      const read = parseStrokeText(text);
      const pattern = patternOfText(read.ok ? read.value : [], parseMeter(meterText)!, ticks(TICKS_PER_QUARTER / per));
      const roll = dice(seed);
      const loops = 1 + Math.floor(6 * roll());
      const expected = expectedOf(pattern, 90, 0, loops);
      const slot = 60 / 90 / per;
      const hits = expected.map((e, i): Hit => ({
        // Every other stroke, by where it falls from the first one on, as a swinging hand would lay it.
        seconds: e.seconds + (i % 2 === 1 ? 0.15 * slot : 0) + (gauss(roll) * 3) / 1000,
        limb: e.limb,
        voice: e.voice,
        velocity: 80,
      }));
      const reading = readTake(expected, hits, align(expected, hits, { beat: 60 / 90 }));
      const findings = findingsOf(reading, slot);
      expect(findings.filter((f) => f.kind === 'swing' && f.on === (per === 4 ? '16ths' : '8ths'))).toEqual([]);
      if (findings.length > 0) late++;
    }
    // It is heard all the same.
    expect(late).toBeGreaterThan(60);
  });
});

describe('no fault without a word', () => {
  it('strokes off the beat that hurry are said, though they are no swing and no one limb', () => {
    const found = share(60, (seed) => {
      const set = setting(seed + 70_000, ([text]) => text.startsWith('R L R R'), 4);
      const off = (s: Struck): boolean => (s.tick % (TICKS_PER_QUARTER / 2)) * 4 === TICKS_PER_QUARTER;
      const hits = scattered(set, 3).map((s) => (off(s) ? { ...s, seconds: s.seconds - 0.016 } : s));
      const { verdict, words } = judged(set, hitsOf(hits, 'limbs'));
      return (verdict !== 'clean' && /^Your off-beats are 1\d ms early\.$/.test(words)) || { verdict, words };
    });
    told('off the beat', found);
    expect(found.rate).toBeGreaterThanOrEqual(0.97);
  });
});

describe('what is nobody’s fault', () => {
  it('one stray note of an unknown number: a clean groove stays clean, the stray is named, in 98 %', () => {
    const found = share(300, (seed) => {
      const set = setting(seed + 50_000);
      const hits = hitsOf(scattered(set, 2 + 2 * set.roll()), KNOWS[seed % 2]!);
      const at = set.roll() * set.loop * set.loops;
      const all = [...hits, { seconds: at, limb: null, voice: null, velocity: 60 }].sort(
        (a, b) => a.seconds - b.seconds,
      );
      const { verdict, reading, words } = judged(set, all);
      return (
        (verdict === 'clean' && reading.unknown === 1 && uncountedHits(reading).length === 1) || {
          verdict,
          words,
          bpm: set.bpm,
        }
      );
    });
    told('stray', found);
    expect(found.rate).toBeGreaterThanOrEqual(0.98);
  });
  it('a pad that sends twice within 15–30 ms: clean, and it is named, in 98 %', () => {
    const found = share(300, (seed) => {
      const set = setting(seed + 60_000);
      const knows: Knows = seed % 2 ? 'voices' : 'nothing';
      const hits = hitsOf(scattered(set, 2 + 2 * set.roll()), knows);
      const many = 1 + Math.floor(set.roll() * 3);
      const twice = Array.from({ length: many }, () => hits[Math.floor(set.roll() * hits.length)]!).map((h) => ({
        ...h,
        seconds: h.seconds + 0.015 + 0.015 * set.roll(),
      }));
      const all = [...hits, ...twice].sort((a, b) => a.seconds - b.seconds);
      const { verdict, reading, words, kinds } = judged(set, all);
      return (
        (verdict === 'clean' && reading.doubled === many) || {
          verdict,
          words,
          kinds,
          doubled: reading.doubled,
          many,
          knows,
          bpm: set.bpm,
          slot: set.slot,
        }
      );
    });
    told('twice', found);
    expect(found.rate).toBeGreaterThanOrEqual(0.98);
  });
});

describe('grace strokes', () => {
  const PHRASES: readonly (readonly [string, string, number])[] = [
    ['fR L R L fL R L R', '4/4', 4],
    ['fR fL fR fL', '4/4', 2],
    ['fR L R fL R L', '6/8', 2],
    ['dR L dR L R L R L', '4/4', 4],
    ['tR L R L R L', '3/4', 2],
    ['R+K R dL R R+K R fL R', '4/4', 2],
    ['fR L R L fR L R', '7/8', 2],
  ];
  const GRACES: Readonly<Record<string, number>> = { flam: 1, drag: 2, ruff: 3 };
  const play = (seed: number, left: boolean) => {
    const roll = dice(seed);
    for (let i = 0; i < 5; i++) roll();
    const [text, meterText, per] = PHRASES[seed % PHRASES.length]!;
    const read = parseStrokeText(text);
    const meter = parseMeter(meterText)!;
    const pattern = patternOfText(read.ok ? read.value : [], meter, ticks(TICKS_PER_QUARTER / per));
    const bpm = 60 + Math.floor(roll() * 81);
    const loops = 2 + Math.floor(roll() * 10);
    const perTick = 60 / (quarterTempo(bpm, meter) * TICKS_PER_QUARTER);
    const loop = text.split(' ').length * (TICKS_PER_QUARTER / per);
    const knows = KNOWS[seed % 3]!;
    const hits: Hit[] = [];
    const moments = new Set<number>();
    const add = (seconds: number, limb: Limb, voice: Hit['voice'], velocity: number): void => {
      hits.push({
        seconds,
        limb: knows === 'limbs' ? limb : null,
        voice: knows === 'nothing' ? null : voice,
        velocity,
      });
    };
    for (let turn = 0; turn < loops; turn++)
      for (const s of pattern.strokes) {
        const tick = turn * loop + s.at;
        if (knows === 'nothing' && moments.has(tick) && !s.ornament) continue;
        const seconds = tick * perTick + (gauss(roll) * 4) / 1000;
        const many = left ? 0 : (GRACES[s.ornament ?? ''] ?? 0);
        const apart = 0.02 + 0.02 * roll();
        for (let n = many; n >= 1; n--)
          add(seconds - n * apart + (gauss(roll) * 1.5) / 1000, s.limb === 'R' ? 'L' : 'R', s.voice, 30);
        if (knows === 'nothing' && moments.has(tick)) continue;
        moments.add(tick);
        add(seconds, s.limb, s.voice, 80);
      }
    hits.sort((a, b) => a.seconds - b.seconds);
    const set: Setting = {
      pattern,
      bpm,
      loops,
      roll,
      perTick,
      beat: beatTicks(meter) * perTick,
      slot: (TICKS_PER_QUARTER / per) * perTick,
      loop: loop * perTick,
      strokes: [],
    };
    return { set, hits, knows, text };
  };
  it('flams, drags and ruffs played right are clean, in 98 %', () => {
    const found = share(400, (seed) => {
      const { set, hits, knows, text } = play(seed, false);
      const { verdict, words, kinds } = judged(set, hits);
      return verdict === 'clean' || { words, kinds, knows, text, bpm: set.bpm, loops: set.loops };
    });
    told('graces', found);
    expect(found.rate).toBeGreaterThanOrEqual(0.98);
  });
  it('left out, it is said, in 98 %', () => {
    const found = share(400, (seed) => {
      const { set, hits, knows, text } = play(seed, true);
      const { verdict, words, kinds } = judged(set, hits);
      return (verdict !== 'clean' && /without its grace/.test(words)) || { words, kinds, knows, text, bpm: set.bpm };
    });
    told('graces left out', found);
    expect(found.rate).toBeGreaterThanOrEqual(0.98);
  });
});

describe('a wander is no drift', () => {
  // Noise of which each value hangs together with the last, as players wander; the seed says which.
  function wandering(loops: number, together: number, sd: number, perMinute: number, seed: number) {
    let state = seed;
    const chance = (): number => ((state = (state * 1664525 + 1013904223) >>> 0) + 0.5) / 4294967296;
    const normal = (): number => Math.sqrt(-2 * Math.log(chance())) * Math.cos(2 * Math.PI * chance());
    const read = parseStrokeText('(R L)x8');
    const pattern = patternOfText(read.ok ? read.value : [], parseMeter('4/4')!, ticks(1260));
    const expected = expectedOf(pattern, 0.6, 0, loops);
    let off = normal() * sd;
    const hits = expected.map((e): Hit => {
      off = together * off + Math.sqrt(1 - together ** 2) * sd * normal();
      return {
        seconds: e.seconds + (off + 2 * normal() + (perMinute * e.seconds) / 60) / 1000,
        limb: e.limb,
        voice: e.voice,
        velocity: 80,
      };
    });
    const reading = readTake(expected, hits, align(expected, hits, { beat: 0.6 }));
    return findingsOf(reading, 0.15).some((f) => f.kind === 'drift');
  }
  const share = (many: number, of: (seed: number) => boolean): number =>
    Array.from({ length: many }, (_, i) => of(7 + 101 * i)).filter(Boolean).length / many;

  it('noise of 8 ms over four loops, and of 6 ms over one, is seldom called one; what goes on is nearly always', () => {
    // 27 % and 10 % before what hangs together was weighed.
    expect(share(300, (seed) => wandering(4, 0.8, 8, 0, seed))).toBeLessThan(0.08);
    expect(share(300, (seed) => wandering(1, 0.8, 6, 0, seed))).toBeLessThan(0.06);
    expect(share(150, (seed) => wandering(4, 0, 5, 180, seed))).toBeGreaterThan(0.95);
    expect(share(150, (seed) => wandering(8, 0.9, 4, 180, seed))).toBeGreaterThan(0.95);
  });
});
