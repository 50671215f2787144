import { RULES } from '@core/formats/shelf-file';
import { BACKING, evenLay, samplesOf, USUAL_PIECES, type BarsOfRecord } from '@core/listen';
import { KIT_PRESETS } from '@core/kit';
import { meter, USUAL_SCHOOLS } from '@core/time';
import { USUAL_PROFILE } from '@core/reach';
import { renderStrokes, type Blow } from '../../sound/mixing';
import { ListeningEngine } from './listening.engine';

const RATE = 44_100;
const BPM = 92;

/** One slot to a letter, in the application's own voices. */
const ON: Readonly<Record<string, Omit<Blow, 'at'>>> = {
  k: { sound: 'kick', velocity: 104 },
  s: { sound: 'snare', velocity: 88 },
  S: { sound: 'snare', velocity: 122 },
  g: { sound: 'snare', velocity: 40 },
  h: { sound: 'hat-closed', velocity: 90 },
};

function engineOf(slots: string, begins = 0.4): { engine: ListeningEngine; samples: Float32Array } {
  const slot = 60 / BPM / 4;
  const blows = Array.from(slots).flatMap((letter, i): Blow[] => {
    const on = ON[letter];
    return on ? [{ ...on, at: begins + i * slot + 0.004 * Math.sin(i * 7.3) }] : [];
  });
  const samples = renderStrokes(blows, begins + slots.length * slot + 0.8, RATE);
  const engine = new ListeningEngine();
  engine.begin(samples.length, RATE);
  // In two pieces and two channels, as a page hands them over.
  const half = Math.floor(samples.length / 2);
  engine.add(0, [samples.slice(0, half), samples.slice(0, half)]);
  engine.add(half, [samples.slice(half), samples.slice(half)]);
  return { engine, samples };
}

const kit = KIT_PRESETS[0];
if (!kit) throw new Error('no kit');
const own = { kit, profile: USUAL_PROFILE, schools: USUAL_SCHOOLS };

describe('listening to a recording', () => {
  const slots = 'SgkhsgkhSgkhsghkSgkhsgkhSgkhsghk';
  const { engine, samples } = engineOf(slots);
  const told: number[] = [];
  const heard = engine.analyse((share) => told.push(share));
  const stretch: BarsOfRecord = { lay: evenLay(BPM, 0.4, meter(4, 4)), first: 0, many: 2 };
  const wish = { stretch, way: 0, said: [], added: [], pieces: USUAL_PIECES, bpm: BPM };

  it('finds every stroke of our own voices, and the tempo, and says how far it is', () => {
    expect(heard.onsets.length).toBe(slots.length);
    expect(heard.beats.some((b) => Math.abs(b.bpm / BPM - 1) < 0.005)).toBe(true);
    expect(told.at(-1)).toBe(1);
    expect(engine.peaks().samples).toBe(samples.length);
  });

  it('makes the phrase that was rendered, with at most one correction in ten strokes', () => {
    const read = engine.read(wish, own);
    expect(read.ways[0]?.grid).toBe(1260);
    const wanted = Array.from(slots, (l) => (l === 'k' ? 'kick' : l === 'h' ? 'cymbal' : 'drum'));
    const wrong = read.strokes.filter((s) => s.kinds.join() !== wanted[s.at / 1260]);
    expect(read.strokes).toHaveLength(slots.length);
    expect(wrong.length).toBeLessThanOrEqual(slots.length / 10);
    // Named, they are what was rendered; and levels follow loudness.
    const said = wrong.map((s) => ({
      at: s.seconds,
      kinds: [wanted[s.at / 1260] === 'kick' ? ('kick' as const) : ('drum' as const)],
    }));
    const again = engine.read({ ...wish, said }, own);
    expect(again.strokes.filter((s) => s.kinds.join() !== wanted[s.at / 1260])).toEqual([]);
    const levels = Array.from(slots, (l) => (l === 'S' ? 'accent' : l === 'g' ? 'ghost' : 'tap'));
    const off = again.strokes.filter((s) => s.level !== levels[s.at / 1260]);
    expect(off.map((s) => `${s.at / 1260} ${s.kinds.join()} ${s.level}`)).toEqual([]);
    expect(again.pattern?.strokes.map((s) => s.at / 1260)).toEqual(Array.from(slots, (_, i) => i));
    expect(again.hands.length).toBeGreaterThanOrEqual(3);
    // The hands that the player named stay in every school.
    const pinned = engine.read(
      { ...wish, said: [{ at: again.strokes[4]?.seconds ?? 0, hand: 'L' as const, kinds: ['drum' as const] }] },
      own,
    );
    for (const way of pinned.hands) expect(way.pattern.strokes.find((s) => s.at === 4 * 1260)?.limb).toBe('L');
  });

  it('finds the bar that comes round', () => {
    expect(engine.read(wish, own).round?.length).toBe(20_160);
    const three = engineOf('SgkSgtSkkgkS'.replaceAll('t', 's').repeat(4));
    three.engine.analyse(() => undefined);
    const read = three.engine.read({ ...wish, stretch: { ...stretch, many: 3 } }, own);
    expect(read.round?.words).toBe('3 beats long, the same again after 3 bars');
  });

  it('holds the phrase against the record: in turn by the bar, together, one per ear', () => {
    const { pattern } = engine.read(wish, own);
    if (!pattern) throw new Error('nothing was read');
    const bar = (4 * 60) / BPM;
    const ears = engine.check({ stretch, pattern, how: 'ears', speed: 1 });
    expect(Math.abs(ears.left.length / RATE - 2 * bar)).toBeLessThan(0.001);
    const turn = engine.check({ stretch, pattern, how: 'turn', speed: 0.5 });
    expect(turn.laid.map((l) => Math.round((l.at / bar) * 10) / 10)).toEqual([0, 2, 4, 6]);
    expect(turn.laid.map((l) => Math.round(l.record * 100) / 100)).toEqual([0.4, 0.4, 3.01, 3.01]);
    const words = engine.beside(stretch, pattern, USUAL_SCHOOLS, []).words;
    expect(words).toHaveLength(1);
    expect(words[0]).toMatch(/^32 strokes of the recording match, [0-4] ms apart on average\.$/);
    const less = engine.beside(stretch, { ...pattern, strokes: pattern.strokes.slice(1) }, USUAL_SCHOOLS, []).words;
    expect(less[0]).toBe('Heard but not written: bar 1, 1.');
  });

  it('keeps its bars as a clip: as long, as loud, with its bar lines', () => {
    const clip = engine.clip(stretch);
    if (!clip) throw new Error('no clip');
    const back = samplesOf(clip.samples);
    const bar = (4 * 60) / BPM;
    expect([clip.rate, clip.bars, clip.meter]).toEqual([32_000, 2, '4/4']);
    const round = BACKING.lead + BACKING.tail;
    expect(Math.abs(back.length / 32_000 - 2 * bar - round)).toBeLessThan(0.001);
    // Every bar line has its mark, and so has what was bent between them.
    const at = new Map(clip.marks.map((m) => [m.tick, m.at - BACKING.lead]));
    [0, 1, 2].forEach((b) => expect(at.get(b * 20_160)).toBeCloseTo(b * bar, 6));
    const power = (x: Float32Array): number => x.reduce((s, v) => s + v * v, 0) / x.length;
    const there = samples.slice(
      Math.round((0.4 - BACKING.lead) * RATE),
      Math.round((0.4 + 2 * bar + BACKING.tail) * RATE),
    );
    expect(power(back) / power(there)).toBeGreaterThan(0.7);
    expect(power(back) / power(there)).toBeLessThan(1.05);
    expect(RULES.clips({ ...clip, id: 'a', at: 0, from: '' })).toBeNull();
    expect(RULES.clips({ ...clip, id: 'a', at: 0, from: '', samples: 'no letters!' })).not.toBeNull();
    expect(engine.clip({ ...stretch, many: 9 })).toBeNull();
  });

  it('slows a part', () => {
    const slow = engine.slowed(0.4, 0.4 + (4 * 60) / BPM, 0.5);
    expect(Math.abs(slow.length / RATE - (8 * 60) / BPM)).toBeLessThan(0.001);
  });

  it('takes silence and strokes that are put in', () => {
    const silent = new ListeningEngine();
    silent.begin(RATE * 3, RATE);
    expect(silent.analyse(() => undefined)).toEqual({ onsets: [], beats: [], bars: [] });
    const none = silent.read(wish, own);
    expect([none.strokes, none.pattern]).toEqual([[], null]);
    const put = silent.read({ ...wish, added: [0.4, 0.4 + 60 / BPM] }, own);
    expect(put.strokes.map((s) => s.at)).toEqual([0, 5040]);
  });
});
