import {
  attackNear,
  BACKING,
  barsHeard,
  beatsHeard,
  besideRecord,
  CLIP_LIMITS,
  fluxOf,
  gridChoices,
  layMoment,
  layTick,
  lettersOf,
  paced,
  peaksOf,
  proposedKinds,
  readStrokes,
  roundOf,
  soundsOf,
  strokesIn,
  thinned,
  ticksIn,
  type BarChoice,
  type BeatChoice,
  type Beside,
  type Clip,
  type Correction,
  type GridChoice,
  type HeardKind,
  type HeardOnset,
  type HeardRound,
  type HeardStroke,
  type Lay,
  type Peaks,
  type PieceOf,
  type StrokeSound,
  type BarsOfRecord,
  type TakenOnset,
} from '@core/listen';
import { heardPattern, heardWays, type HeardWay, type TakeWish } from '@core/formats/song';
import { compareStrokes, LEVEL_DEFAULTS } from '@core/stroke';
import { barTicks, countAt, meterText, type Schools } from '@core/time';
import type { Pattern } from '@core/pattern';
import { renderStrokes } from '../../sound/mixing';

/** Whose hands and kit it is read for. */
export type Own = Omit<TakeWish, 'choice' | 'bpm'>;

/** What a recording says by itself. */
export interface Analysis {
  readonly onsets: readonly HeardOnset[];
  readonly beats: readonly BeatChoice[];
  /** How alike what is played is to what comes so many beats later, by the first of the beats. */
  readonly bars: readonly BarChoice[];
}

/** What is asked of a stretch. */
export interface ReadWish {
  readonly stretch: BarsOfRecord;
  /** Which of the ways to lay it; 0 for the likeliest. */
  readonly way: number;
  readonly said: readonly Correction[];
  /** Seconds of strokes that the player put in. */
  readonly added: readonly number[];
  readonly pieces: PieceOf;
  readonly bpm: number;
}

/** A stretch as it was read. */
export interface RecordReading {
  readonly ways: readonly GridChoice[];
  readonly way: number;
  readonly strokes: readonly HeardStroke[];
  readonly pattern: Pattern | null;
  /** Ways to stick it, each of a school; the phrase is the first that fits. */
  readonly hands: readonly HeardWay[];
  readonly told: readonly string[];
  readonly round: HeardRound | null;
}

/** How a record and a phrase are held against each other. */
export const CHECKS = ['turn', 'together', 'ears'] as const;
export type Check = (typeof CHECKS)[number];

export interface CheckWish {
  readonly stretch: BarsOfRecord;
  readonly pattern: Pattern;
  readonly how: Check;
  readonly speed: number;
}

/** Samples of a check: left and right, and which stretches of the record they are. */
export interface Checked {
  readonly left: Float32Array<ArrayBuffer>;
  readonly right: Float32Array<ArrayBuffer>;
  readonly laid: readonly { readonly at: number; readonly record: number; readonly seconds: number }[];
}

/** A stroke that is put in is drawn to the attack beside it, within so many seconds. */
const PUT_IN = 0.03;

/** Listens to one recording: all of it aside from the page. */
export class ListeningEngine {
  private samples = new Float32Array(0);
  private rate = 44_100;
  private onsets: readonly HeardOnset[] = [];
  private readonly sounds = new Map<number, StrokeSound>();

  /** Room for a recording, which comes in pieces. */
  begin(length: number, rate: number): void {
    this.samples = new Float32Array(length);
    this.rate = rate;
    this.onsets = [];
    this.sounds.clear();
  }

  /** A piece of it, all channels: they become one. */
  add(at: number, channels: readonly Float32Array[]): void {
    for (const c of channels)
      for (let i = 0; i < c.length; i++)
        this.samples[at + i] = (this.samples[at + i] ?? 0) + (c[i] ?? 0) / channels.length;
  }

  peaks(): Peaks {
    return peaksOf(this.samples, this.rate);
  }

  /** The strokes and the beats; `tell` hears the share that is done. */
  analyse(tell: (share: number) => void): Analysis {
    const flux = fluxOf(this.samples, this.rate, (share) => tell(share * 0.7));
    this.onsets = strokesIn(this.samples, this.rate, flux);
    tell(0.8);
    const beats = beatsHeard(this.samples, this.rate, flux, this.onsets);
    tell(1);
    return { onsets: this.onsets, beats, bars: barsHeard(beats[0]?.beats ?? [], flux) };
  }

  /** The attack nearest to a moment. */
  attack(at: number): number {
    const near = this.onsets.find((o) => Math.abs(o.at - at) < PUT_IN);
    return near?.at ?? attackNear(this.samples, this.rate, at * this.rate) / this.rate;
  }

  read(wish: ReadWish, own: Own): RecordReading {
    const { stretch, said, added, pieces, bpm } = wish;
    const { lay } = stretch;
    const bar = barTicks(lay.meter);
    const [from, to] = [layMoment(lay, stretch.first * bar), layMoment(lay, (stretch.first + stretch.many) * bar)];
    const taken = this.taken(from - 0.05, to + 0.05, said, added);
    const ats = ticksIn(
      stretch,
      taken.filter((t) => said.every((c) => !c.gone || Math.abs(c.at - t.at) > 0.004)),
    );
    const ways = gridChoices(ats, lay.meter, stretch.many * bar, ((to - from) * 1000) / (stretch.many * bar));
    const way = Math.min(wish.way, ways.length - 1);
    const choice = ways[way];
    if (!choice) return { ways, way: 0, strokes: [], pattern: null, hands: [], told: [], round: null };
    const strokes = readStrokes(stretch, choice, taken, said);
    const bars = heardPattern({ meter: lay.meter, many: stretch.many, bpm, strokes, choice, pieces }, own);
    const schools = own.schools;
    const hands = bars && schools ? heardWays(bars.pattern, strokes, bpm, { ...own, schools }) : [];
    return {
      ways,
      way,
      strokes,
      pattern: bars?.pattern ?? null,
      hands,
      told: bars ? [...bars.hands, ...bars.left] : [],
      round: this.roundIn(strokes, choice.grid, stretch, lay),
    };
  }

  private roundIn(
    strokes: readonly HeardStroke[],
    grid: number,
    { many }: BarsOfRecord,
    { meter }: Lay,
  ): HeardRound | null {
    const slots = Math.floor((many * barTicks(meter)) / grid);
    const at = new Map(
      strokes.map((s): [number, string] => [s.at, `${s.kinds.join('+')} ${s.level === 'accent' ? '!' : ''}`]),
    );
    return roundOf(
      Array.from({ length: slots }, (_, i) => at.get(i * grid) ?? ''),
      grid,
      meter,
    );
  }

  /** Strokes between two moments with what each is taken for, taught by all that the player named. */
  private taken(
    from: number,
    to: number,
    said: readonly Correction[],
    added: readonly number[],
  ): readonly TakenOnset[] {
    const here = [
      ...this.onsets.filter((o) => o.at >= from && o.at <= to && added.every((a) => Math.abs(a - o.at) > 0.004)),
      ...added.filter((a) => a >= from && a <= to).map((at) => ({ at, sure: 1 })),
    ].sort((a, b) => a.at - b.at);
    const named = said.flatMap((c) => (c.kinds ? [{ sound: this.soundAt(c.at), kinds: c.kinds }] : []));
    const sounds = here.map((o) => this.soundAt(o.at));
    const proposals = proposedKinds(sounds, named);
    return here.map((o, i): TakenOnset => {
      const none: readonly HeardKind[] = ['drum'];
      return { ...o, loud: sounds[i]?.loud ?? -60, proposal: proposals[i] ?? { kinds: none, sure: 0 } };
    });
  }

  private soundAt(at: number): StrokeSound {
    const known = this.sounds.get(at);
    if (known) return known;
    const [sound] = soundsOf(this.samples, this.rate, [at]);
    if (!sound) throw new Error('a stroke has a sound');
    this.sounds.set(at, sound);
    return sound;
  }

  /** A stretch of the record at another pace: attacks where they belong, as sharp as before. */
  slowed(from: number, to: number, speed: number): Float32Array<ArrayBuffer> {
    const [a, b] = [Math.round(from * this.rate), Math.round(to * this.rate)];
    const x = this.part(a, b);
    if (speed === 1) return x;
    const attacks = this.attacksIn(a, b).map((o) => ({ from: o, to: Math.round(o / speed) }));
    return paced(x, this.rate, Math.round(x.length / speed), attacks);
  }

  private part(from: number, to: number): Float32Array<ArrayBuffer> {
    const x = new Float32Array(Math.max(1, to - from));
    x.set(this.samples.subarray(Math.max(0, from), Math.max(0, to)), Math.max(0, -from));
    return x;
  }

  private attacksIn(from: number, to: number): readonly number[] {
    return this.onsets
      .map((o) => Math.round(o.at * this.rate))
      .filter((o) => o >= from && o < to)
      .map((o) => o - from);
  }

  /** Whole bars of the record as they are kept with a phrase; null where they are longer than may be kept. */
  clip({ lay, first, many }: BarsOfRecord): Pick<Clip, 'rate' | 'samples' | 'meter' | 'bars' | 'marks'> | null {
    const bar = barTicks(lay.meter);
    const [begin, end] = [first * bar, (first + many) * bar];
    const from = layMoment(lay, begin) - BACKING.lead;
    const to = layMoment(lay, end) + BACKING.tail;
    if (to - from > CLIP_LIMITS.seconds) return null;
    const rate = Math.min(this.rate, CLIP_LIMITS.rate);
    const samples = thinned(this.part(Math.round(from * this.rate), Math.round(to * this.rate)), this.rate, rate);
    const lines = Array.from({ length: many + 1 }, (_, b) => begin + b * bar);
    const inside = lay.marks.map((m) => m.tick).filter((t) => t > begin && t < end);
    const marks = [...new Set([...lines, ...inside])]
      .sort((a, b) => a - b)
      .map((t) => ({ tick: t - begin, at: layMoment(lay, t) - from }));
    return { rate, samples: lettersOf(samples), meter: meterText(lay.meter), bars: many, marks };
  }

  /** The record and the phrase in turn, together, or one in each ear. */
  check({ stretch, pattern, how, speed }: CheckWish): Checked {
    const { lay, first, many } = stretch;
    const bar = barTicks(lay.meter);
    const moment = (tick: number): number => layMoment(lay, first * bar + tick);
    const [from, to] = [moment(0), moment(many * bar)];
    const record = this.slowed(from, to, speed);
    const seconds = (to - from) / speed;
    const phrase = renderStrokes(
      pattern.strokes.map((s) => ({
        at: (moment(s.at) - from) / speed,
        sound: s.voice,
        velocity: LEVEL_DEFAULTS[s.level].velocity,
      })),
      seconds,
      this.rate,
    );
    const n = Math.min(record.length, phrase.length);
    if (how === 'ears') return { left: record, right: phrase, laid: [{ at: 0, record: from, seconds }] };
    if (how === 'together') {
      const both = record.map((x, i) => 0.6 * (x + (phrase[i] ?? 0)));
      return { left: both, right: both, laid: [{ at: 0, record: from, seconds }] };
    }
    // Bar by bar: the record, then the phrase.
    const both = new Float32Array(2 * n);
    const laid: Checked['laid'][number][] = [];
    for (let b = 0; b < many; b++) {
      const [begin, end] = [moment(b * bar), moment((b + 1) * bar)].map((t) =>
        Math.min(n, Math.round(((t - from) / speed) * this.rate)),
      );
      if (begin === undefined || end === undefined) continue;
      both.set(record.subarray(begin, end), 2 * begin);
      both.set(phrase.subarray(begin, end), begin + end);
      const length = (end - begin) / this.rate;
      laid.push({ at: (2 * begin) / this.rate, record: moment(b * bar), seconds: length });
      laid.push({ at: (begin + end) / this.rate, record: moment(b * bar), seconds: length });
    }
    return { left: both, right: both, laid };
  }

  /** What differs between the record and a phrase, stroke by stroke. */
  beside({ lay, first, many }: BarsOfRecord, pattern: Pattern, schools: Schools, gone: readonly number[]): Beside {
    const bar = barTicks(lay.meter);
    const moment = (tick: number): number => layMoment(lay, first * bar + tick);
    const where = (tick: number): string => {
      const b = Math.floor(tick / bar);
      return `bar ${b + 1}, ${countAt(tick - b * bar, { meter: lay.meter, grid: pattern.grid, schools }).text}`;
    };
    const at = [...new Set([...pattern.strokes].sort(compareStrokes).map((s): number => s.at))];
    const heard = this.onsets
      .map((o) => o.at)
      .filter(
        (t) =>
          t > moment(0 - bar / 64) && t < moment(many * bar - bar / 64) && gone.every((g) => Math.abs(g - t) > 0.004),
      );
    const slot = (t: number): number => {
      const tick = layTick(lay, t) - first * bar;
      return Math.max(0, Math.round(tick / pattern.grid) * pattern.grid);
    };
    return besideRecord(
      at.map((tick) => ({ at: moment(tick), where: where(tick) })),
      heard,
      (t) => where(slot(t)),
    );
  }
}
