import { listed, readFail, type Problem, type Read } from '../../base';
import { barTicks, meter, parseMeter, STRAIGHT, SWING, TICKS_PER_QUARTER, type Feel, type Meter } from '../../time';
import {
  canStrike,
  footOf,
  LEVEL_DEFAULTS,
  LIMBS,
  voiceCalled,
  type Limb,
  type MidiMap,
  type Ornament,
  type Voice,
} from '../../stroke';
import type { SharedPhrase } from '../shared';
import { countableMeter, SONG_LIMITS, type Song, type SongBar, type SongNote } from '../song';
import { TYPES, voiceAt } from './signs';
import { all, child, numberOf, textOf, type Xml } from './xml';

export type PartCode = 'no-notes' | 'too-long' | 'odd-meter' | 'left-aside' | 'bad-time';

/** Elements of a bar and of a note that are read, or that change nothing of what is played. */
const KNOWN = new Set([
  ...['note', 'attributes', 'backup', 'forward', 'direction', 'sound', 'print', 'barline'],
  ...[
    'unpitched',
    'pitch',
    'rest',
    'duration',
    'chord',
    'grace',
    'instrument',
    'voice',
    'type',
    'dot',
    'stem',
    'staff',
  ],
  ...['time-modification', 'notehead', 'notehead-text', 'beam', 'notations', 'tie', 'accidental', 'lyric'],
  ...['tuplet', 'technical', 'articulations', 'ornaments', 'tied', 'slur'],
  ...['fingering', 'open', 'half-muted', 'stopped', 'accent', 'strong-accent', 'tremolo', 'other-technical'],
]);

/** One part of a score, read bar by bar. */
export class PartReader {
  private readonly notes: SongNote[] = [];
  private readonly bars: SongBar[] = [];
  private readonly problems: Problem<PartCode>[] = [];
  private readonly aside = new Map<string, number>();
  private readonly names = new Map<string, string>();
  private readonly keys = new Map<string, number>();
  private divisions = 1;
  private meter: Meter = meter(4, 4);
  private feel: Feel | null = null;
  private readonly tempos: number[] = [];
  private at = 0;
  /** Grace notes that wait for their stroke, by the voice they are written in. */
  private graces: { readonly voice: Voice | null }[] = [];

  constructor(
    private readonly root: Xml,
    private readonly part: Xml,
    private readonly map: MidiMap,
  ) {
    const id = part.attributes['id'];
    const head = all(child(root, 'part-list'), 'score-part').find((p) => p.attributes['id'] === id) ?? null;
    for (const i of all(head, 'score-instrument'))
      this.names.set(i.attributes['id'] ?? '', textOf(i, 'instrument-name') ?? '');
    for (const i of all(head, 'midi-instrument')) {
      const key = numberOf(i, 'midi-unpitched');
      if (key !== null) this.keys.set(i.attributes['id'] ?? '', key - 1);
    }
  }

  read(own: SharedPhrase | null): Read<Song, PartCode> {
    const measures = all(this.part, 'measure');
    if (measures.length > SONG_LIMITS.bars)
      return readFail('too-long', null, `It is longer than ${SONG_LIMITS.bars} bars.`);
    for (const [i, m] of measures.entries()) {
      const wrong = this.measure(m, i);
      if (wrong)
        return readFail('bad-time', { path: `line ${m.line}` }, `Bar ${m.attributes['number'] ?? i + 1}: ${wrong}`);
      if (this.notes.length > SONG_LIMITS.notes)
        return readFail('too-long', null, `It has more than ${SONG_LIMITS.notes} notes.`);
    }
    if (this.notes.length === 0) return readFail('no-notes', null, 'There are no drum notes in this score.');
    if (this.aside.size > 0) {
      const what = [...this.aside].map(([name, n]) => `${n} × ${name}`).slice(0, 12);
      this.tell('left-aside', `Not read: ${listed(what)}.`);
    }
    const name =
      textOf(child(this.root, 'work'), 'work-title') ??
      textOf(this.root, 'movement-title') ??
      textOf(this.root, 'movement-number') ??
      '';
    const bpm = Math.min(1000, Math.max(5, this.tempos[0] ?? 120));
    const song: Song = {
      name: name.slice(0, 200),
      bpm,
      tempos: Math.max(1, new Set(this.tempos).size),
      bars: this.bars,
      channels: [],
      notes: [...this.notes].sort((a, b) => a.at - b.at),
      feel: this.feel,
      written: true,
      own,
    };
    return { ok: true, value: song, problems: this.problems };
  }

  private tell(code: PartCode, message: string): void {
    this.problems.push({ code, at: null, message });
  }

  private set(name: string, n = 1): void {
    this.aside.set(name, (this.aside.get(name) ?? 0) + n);
  }

  /** One bar; what is wrong with it, in words, or null. */
  private measure(m: Xml, index: number): string | null {
    for (const a of all(m, 'attributes')) {
      const wrong = this.attributes(a, index);
      if (wrong) return wrong;
    }
    const bar = barTicks(this.meter);
    let [at, furthest] = [0, 0];
    let last = 0;
    this.graces = [];
    const first = this.notes.length;
    for (const e of m.children) {
      if (!KNOWN.has(e.name)) this.set(e.name);
      if (e.name === 'direction' || e.name === 'sound') this.sound(e);
      if (e.name === 'barline' && (child(e, 'repeat') || child(e, 'ending'))) this.set('repeat (bars are read once)');
      if (e.name !== 'note' && e.name !== 'backup' && e.name !== 'forward') continue;
      const chord = child(e, 'chord') !== null;
      const grace = child(e, 'grace') !== null;
      const length = grace ? 0 : this.duration(e);
      if (length === null) return 'a note in it lasts no time that can be read.';
      if (e.name === 'backup') at -= length;
      else if (e.name === 'forward') at += length;
      else {
        const from = chord ? last : at;
        if (grace) this.grace(e);
        else this.note(e, from);
        if (!chord && !grace) {
          last = at;
          at += length;
        }
      }
      if (at < -0.5) return 'it goes back before its beginning.';
      furthest = Math.max(furthest, at);
    }
    if (furthest > bar + 1) return `its notes last longer than a bar of ${this.meter.beats}/${this.meter.unit}.`;
    // A first bar that is not full leads in to the next.
    const leads = index === 0 && furthest < bar - 1 && all(this.part, 'measure').length > 1;
    const from = leads ? 0 - bar : this.at;
    const shift = leads ? 0 - furthest : this.at;
    for (let i = first; i < this.notes.length; i++) {
      const n = this.notes[i];
      if (n) this.notes[i] = { ...n, at: n.at + shift };
    }
    this.bars.push({
      number: leads ? 0 : this.bars.filter((b) => b.number > 0).length + 1,
      at: from,
      meter: this.meter,
    });
    if (!leads) this.at += bar;
    return null;
  }

  private attributes(a: Xml, index: number): string | null {
    const divisions = numberOf(a, 'divisions');
    if (divisions !== null) {
      if (divisions <= 0 || divisions > 1e6) return `its divisions of a quarter, ${divisions}, make no sense.`;
      this.divisions = divisions;
    }
    const time = child(a, 'time');
    if (!time) return null;
    const [beats, unit] = [textOf(time, 'beats') ?? '', numberOf(time, 'beat-type') ?? 0];
    const found = meterOf(beats, unit);
    if (!found)
      this.tell(
        'odd-meter',
        `Bar ${index + 1} is in ${beats}/${unit}, which is read as ${this.meter.beats}/${this.meter.unit} here.`,
      );
    this.meter = found ?? this.meter;
    return null;
  }

  private duration(e: Xml): number | null {
    const d = numberOf(e, 'duration');
    if (d === null || d < 0 || d > 1e7) return null;
    return (d * TICKS_PER_QUARTER) / this.divisions;
  }

  private sound(e: Xml): void {
    const sound = e.name === 'sound' ? e : child(e, 'sound');
    const tempo = Number(sound?.attributes['tempo'] ?? NaN);
    if (tempo > 0 && tempo < 10_000) this.tempos.push(tempo);
    else this.metronome(e);
    const swing = child(sound, 'swing');
    if (!swing) return;
    const [first, second] = [numberOf(swing, 'first'), numberOf(swing, 'second')];
    const ratio = first && second ? first / (first + second) : 0.5;
    if (child(swing, 'straight') || ratio === 0.5) this.feel = STRAIGHT;
    else if (ratio >= SWING.least && ratio <= SWING.most)
      this.feel = { kind: 'swung', on: textOf(swing, 'swing-type') === '16th' ? '16ths' : 'eighths', ratio };
    else this.set('swing outside 50 to 75%');
  }

  /** A tempo that only stands above the staff: a note and a number. */
  private metronome(e: Xml): void {
    const mark = all(e, 'direction-type').flatMap((d) => all(d, 'metronome'))[0];
    if (!mark) return;
    const value = Object.entries(TYPES).find(([, name]) => name === textOf(mark, 'beat-unit'))?.[0];
    const per = Number((textOf(mark, 'per-minute') ?? '').replace(/[^\d.]/g, ''));
    const tempo = value === undefined ? NaN : (per * 4 * (child(mark, 'beat-unit-dot') ? 1.5 : 1)) / Number(value);
    if (tempo > 0 && tempo < 10_000) this.tempos.push(tempo);
  }

  private voiceOf(e: Xml): { readonly voice: Voice | null; readonly sound: string } {
    const id =
      child(e, 'instrument')?.attributes['id'] ?? (this.names.size === 1 ? [...this.names.keys()][0] : undefined);
    const name = id === undefined ? undefined : this.names.get(id);
    const named = name === undefined ? null : voiceCalled(name);
    const key = id === undefined ? undefined : this.keys.get(id);
    const place = child(e, 'unpitched') ?? child(e, 'pitch');
    const step = textOf(place, 'display-step') ?? textOf(place, 'step') ?? '';
    const octave = numberOf(place, 'display-octave') ?? numberOf(place, 'octave') ?? NaN;
    const at = voiceAt({ step, octave, head: textOf(e, 'notehead') ?? 'normal' });
    const voice = named ?? (key === undefined ? null : (this.map[String(key)] ?? null)) ?? at;
    return { voice: opened(voice, e), sound: name ?? `${step}${Number.isFinite(octave) ? octave : ''}` };
  }

  private grace(e: Xml): void {
    this.graces.push({ voice: this.voiceOf(e).voice });
  }

  private note(e: Xml, at: number): void {
    for (const c of e.children) if (!KNOWN.has(c.name)) this.set(c.name);
    const notations = all(e, 'notations').flatMap((n) => n.children);
    const tied = all(e, 'tie').some((t) => t.attributes['type'] === 'stop');
    if (child(e, 'rest') || tied) return;
    const marks = notations.flatMap((n) =>
      ['technical', 'articulations', 'ornaments'].includes(n.name) ? n.children : [n],
    );
    for (const mark of marks) if (!KNOWN.has(mark.name)) this.set(mark.name);
    const { voice, sound } = this.voiceOf(e);
    const has = (name: string): Xml | undefined => marks.find((x) => x.name === name);
    const finger =
      marks.find((x) => x.name === 'fingering' || x.name === 'other-technical')?.text ??
      textOf(child(e, 'lyric'), 'text') ??
      '';
    const limb = limbOf(finger, voice);
    const level =
      child(e, 'notehead')?.attributes['parentheses'] === 'yes'
        ? 'ghost'
        : (has('accent') ?? has('strong-accent'))
          ? 'accent'
          : 'tap';
    const ornament = this.ornamentOf(has('tremolo'), voice);
    this.notes.push({
      at,
      voice,
      sound,
      velocity: LEVEL_DEFAULTS[level].velocity,
      level,
      ...(limb ? { limb } : {}),
      ...ornament,
    });
  }

  /** Grace notes that waited, or a roll; what no name is known for is told. */
  private ornamentOf(tremolo: Xml | undefined, voice: Voice | null): { ornament?: Ornament; grace?: Voice } {
    const hand = voice !== null && footOf(voice) === null;
    const [first] = this.graces;
    if (first && hand) {
      const ornament = (['flam', 'drag', 'ruff'] as const)[this.graces.length - 1];
      const struck = first.voice;
      const many = this.graces.length;
      this.graces = [];
      if (ornament) return { ornament, ...(struck && footOf(struck) === null ? { grace: struck } : {}) };
      this.set('grace note', many);
    }
    if (!tremolo) return {};
    if (hand && (tremolo.attributes['type'] === 'unmeasured' || Number(tremolo.text.trim()) >= 3))
      return { ornament: 'buzz' };
    this.set('measured tremolo');
    return {};
  }
}

/** A hi-hat as it is said to be held: open, half open or closed. */
function opened(voice: Voice | null, e: Xml): Voice | null {
  if (voice !== 'hat-closed' && voice !== 'hat-open' && voice !== 'hat-half') return voice;
  const marks = all(e, 'notations')
    .flatMap((n) => all(n, 'technical'))
    .flatMap((t) => t.children.map((c) => c.name));
  if (marks.includes('open')) return 'hat-open';
  if (marks.includes('half-muted')) return 'hat-half';
  return marks.includes('stopped') ? 'hat-closed' : voice;
}

/** A limb that stands by a note: "R", "L", or a foot that can strike it. */
function limbOf(text: string, voice: Voice | null): Limb | null {
  const letter = text.trim().toUpperCase();
  const limb = LIMBS.find((l) => l === letter);
  return limb && voice && canStrike(limb, voice) ? limb : null;
}

/** A meter that can be counted here: "4", "3+2+2" over 2 to 16; whole notes as halves. Null for any other. */
function meterOf(beats: string, unit: number): Meter | null {
  const groups = beats.split('+').map(Number);
  if (groups.some((g) => !Number.isInteger(g) || g < 1)) return null;
  const total = groups.reduce((a, b) => a + b, 0);
  if (groups.length > 1) return parseMeter(`${total}/${unit} ${groups.join('+')}`);
  return countableMeter(total, unit);
}
