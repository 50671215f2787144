import { GRID, meter, STRAIGHT, type Feel } from '@core/time';
import { wavBytes, wavHead } from '@core/formats/wav';
import { eventsIn, type Loudness } from '@core/playback';
import { build } from '@core/recipe';
import { loopTrack, practiceTrack, rendition, trackSeconds, type TrackPart } from '@core/rendition';
import { drillSeconds } from '@core/rendition';
import { patternOfText } from '@core/pattern';
import { parseStrokeText } from '@core/stroke';
import { mixed } from './mixing';
import { whenOf } from './sounding';
import { playing, synthesise } from './voices';

const EVEN: Loudness = { primary: 1, timekeeping: 1, texture: 1, click: 1, counts: 1, record: 1 };
const RATE = 8000;

function pattern(text: string, feel: Feel = STRAIGHT) {
  const read = parseStrokeText(text);
  if (!read.ok) throw new Error(text);
  return { ...patternOfText(read.value, meter(7, 8), GRID.sixteenths), feel };
}
function whole(parts: readonly TrackPart[], block: number, loudness = EVEN): Float32Array {
  const blocks = [...mixed(parts, RATE, loudness, block)];
  const all = new Float32Array(blocks.reduce((n, b) => n + b.length, 0));
  blocks.reduce((at, b) => {
    all.set(b, at);
    return at + b.length;
  }, 0);
  return all;
}

describe('a track as samples', () => {
  const swung: Feel = { kind: 'swung', on: '16ths', ratio: 0.61 };
  const parts = loopTrack(rendition({ phrase: pattern('fR! l K R+K zL r dR', swung), countInBars: 1 }), 97, 3);

  it('has every sound on the sample on which the transport starts it, and nothing else', () => {
    // The plain way: each event's samples are added where the transport's own arithmetic puts it.
    const [part] = parts;
    const lead = -part!.from;
    const { program, bpm } = part!.request;
    const anchor = { tick: part!.from, seconds: 0, bpm };
    const wanted = new Float32Array(whole(parts, RATE).length);
    const events = eventsIn(program, part!.from, part!.until);
    expect([lead > 0, events.length > 30]).toEqual([true, true]);
    for (const event of events) {
      const at = Math.max(0, Math.round(whenOf(event, anchor, RATE) * RATE));
      const { name, gain } = playing(event.sound as never, event.velocity);
      synthesise(name, RATE).forEach((v, i) => (wanted[at + i] = (wanted[at + i] ?? 0) + v * gain));
    }
    const made = whole(parts, RATE);
    let worst = 0;
    made.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - wanted[i]!))));
    expect(worst).toBeLessThan(1e-4);
  });
  it('is the same in blocks of any size', () => {
    const one = whole(parts, RATE);
    for (const block of [256, 3001, 5 * RATE]) {
      const other = whole(parts, block);
      const n = Math.min(one.length, other.length);
      expect(other.slice(0, n).every((v, i) => Math.abs(v - one[i]!) < 1e-5)).toBe(true);
    }
  });
  it('a closing hi-hat stops the one that rings; a part that is silent is not there', () => {
    const rings = whole(
      loopTrack(rendition({ phrase: pattern('R[open hi-hat] - - - - - -'), click: 'none' }), 60, 1),
      RATE,
    );
    const closed = whole(
      loopTrack(rendition({ phrase: pattern('R[open hi-hat] H - - - - -'), click: 'none' }), 60, 1),
      RATE,
    );
    // The foot closes it a 16th later: a quarter of a second.
    const level = (x: Float32Array, from: number) => x.slice(from, from + 400).reduce((n, v) => n + v * v, 0);
    expect(level(closed, Math.round(0.45 * RATE))).toBeLessThan(0.1 * level(rings, Math.round(0.45 * RATE)));
    const click = loopTrack(rendition({ phrase: pattern('- - -') }), 60, 1);
    expect(whole(click, RATE).some((v) => v !== 0)).toBe(true);
    expect(whole(click, RATE, { ...EVEN, click: 0 }).every((v) => v === 0)).toBe(true);
  });
  it('a practice track lasts as long as the drill, rung after rung', () => {
    const phrase = build({
      source: { kind: 'typed', text: 'R! l l R K', meter: '7/8', grid: 1260 },
      moves: [],
    }).pattern;
    const plan = { start: 60, goal: 80, step: 10, loops: 3, passes: true };
    const track = practiceTrack(plan, (stage, dynamic) =>
      rendition({ phrase, stage: stage ?? null, dynamic, countInBars: 1 }),
    );
    expect(track.map((p) => p.title).slice(0, 4)).toEqual([
      'The whole phrase, 60, soft',
      'The whole phrase, 60, medium',
      'The whole phrase, 60, loud',
      'The whole phrase, 70, soft',
    ]);
    expect(trackSeconds(track)).toBeCloseTo(
      drillSeconds(plan, phrase.meter, () => phrase.length, 1),
      6,
    );
    const samples = whole(track, RATE).length;
    expect(samples).toBeGreaterThanOrEqual(trackSeconds(track) * RATE);
  });
});

describe('a WAV file', () => {
  it.each([
    [16, 2 ** -15],
    [24, 2 ** -23],
  ] as const)('of %i bit is read back by hand, sample for sample', (bits, error) => {
    const samples = Float32Array.from({ length: 501 }, (_, i) => Math.sin(i / 7) * (i % 3 === 0 ? 1.2 : 0.9));
    const head = new DataView(wavHead(samples.length, { rate: 44_100, bits }).buffer);
    const bytes = new DataView(wavBytes(samples, bits).buffer);
    const tag = (at: number) => String.fromCharCode(...[0, 1, 2, 3].map((i) => head.getUint8(at + i)));
    expect([
      tag(0),
      tag(8),
      tag(36),
      head.getUint32(40, true),
      head.getUint32(24, true),
      head.getUint16(34, true),
    ]).toEqual(['RIFF', 'WAVE', 'data', (501 * bits) / 8, 44_100, bits]);
    for (let i = 0; i < 501; i++) {
      const at = (i * bits) / 8;
      const raw =
        bits === 16
          ? bytes.getInt16(at, true) / 32_767
          : (bytes.getUint16(at, true) | (bytes.getInt8(at + 2) << 16)) / 8_388_607;
      expect(Math.abs(raw - Math.max(-1, Math.min(1, samples[i]!)))).toBeLessThan(error);
    }
  });
});
