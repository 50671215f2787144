import { barTicks, meterText, quarterTempo, TICKS_PER_QUARTER, type Feel, type Meter } from '../../time';
import { isHand, midiKeyOf, USUAL_MAP, VOICE, VOICES, type MidiMap, type Stroke, type Voice } from '../../stroke';
import { gracesOf, pickupOf, withGraces, type Pattern } from '../../pattern';
import { build } from '../../recipe';
import { scoreOf, type Score, type ScoreBar, type ScoreEvent, type ScoreVoice } from '../../score';
import { sharedText, type SharedPhrase } from '../shared';
import { placeOf, TYPES } from './signs';
import { el, type Child, type XmlElement } from './xml';

/** Under this name the phrase itself stands in a score of ours. */
export const OWN_FIELD = 'loop-shelf';

/** A phrase as a score: what is written, and what had to be moved to be written at all. */
export interface WrittenScore {
  readonly xml: string;
  /** How many strokes lie on no usual note value and were moved to the nearest 64th. */
  readonly rounded: number;
}

/**
 * A phrase as MusicXML 4.0 (score-partwise): percussion clef, an instrument for each voice, two voices, sticking as
 * fingering under the notes, ghosts in parentheses, accents, flams and drags as grace notes, a buzz as an unmeasured
 * tremolo, tuplets, swing as it sounds, and the phrase itself in a field of its own.
 */
export function musicXmlOf(phrase: SharedPhrase, map: MidiMap = USUAL_MAP): WrittenScore {
  const pattern = withGraces(build(phrase.recipe).pattern);
  const strokes = [...pickupOf(pattern), ...pattern.strokes];
  // The pick-up's strokes stand before the others, as `scoreOf` is asked of both at once.
  const score = scoreOf({ ...pattern, strokes });
  const voices = VOICES.filter((v) => strokes.some((s) => s.voice === v || gracesOf(s)?.voice === v));
  const bars = score.bars.map((bar, i) => barOf(bar, i, score, { ...pattern, strokes }, phrase.tempo));
  const part = el('part', { id: 'P1' }, bars);
  const root = el(
    'score-partwise',
    { version: '4.0' },
    el('work', {}, el('work-title', {}, phrase.name)),
    el(
      'identification',
      {},
      el('encoding', {}, el('software', {}, 'Loop Shelf')),
      el('miscellaneous', {}, el('miscellaneous-field', { name: OWN_FIELD }, sharedText(phrase))),
    ),
    el(
      'part-list',
      {},
      el(
        'score-part',
        { id: 'P1' },
        el('part-name', {}, 'Drums'),
        voices.map((v) => el('score-instrument', { id: idOf(v) }, el('instrument-name', {}, VOICE[v].name))),
        voices.map((v) =>
          el(
            'midi-instrument',
            { id: idOf(v) },
            el('midi-channel', {}, 10),
            el('midi-unpitched', {}, midiKeyOf(v, map) + 1),
          ),
        ),
      ),
    ),
    part,
  );
  const rounded = new Set(score.bars.flatMap((b) => b.rounded)).size;
  return { xml: `<?xml version="1.0" encoding="UTF-8"?>\n${root.text}\n`, rounded };
}

function idOf(voice: Voice): string {
  return `P1-${voice}`;
}

function barOf(bar: ScoreBar, index: number, score: Score, pattern: Pattern, tempo: number): XmlElement {
  const first = index === 0;
  const written = (voice: ScoreVoice, number: number): XmlElement[] =>
    voice.events.flatMap((e, i) => notesOf(e, i, voice, number, bar, pattern));
  const hands = written(bar.hands, 1);
  // What leads in does not fill its bar.
  const length = bar.hands.events.reduce((n, e) => n + e.length, 0);
  return el(
    'measure',
    { number: bar.number, implicit: bar.number === 0 ? 'yes' : null },
    first && attributesOf(score.meter),
    first && tempoOf(pattern, tempo),
    hands,
    bar.feet && [el('backup', {}, el('duration', {}, length)), written(bar.feet, 2)],
  );
}

function attributesOf(own: Meter): XmlElement {
  const { beats, unit, groups } = own;
  // Only a grouping that is not the usual one is written, as not every program reads it.
  const grouped = meterText(own).includes(' ');
  return el(
    'attributes',
    {},
    el('divisions', {}, TICKS_PER_QUARTER),
    el('key', {}, el('fifths', {}, 0)),
    el('time', {}, el('beats', {}, grouped ? groups.join('+') : beats), el('beat-type', {}, unit)),
    el('clef', {}, el('sign', {}, 'percussion')),
  );
}

/** Notes that a tempo may count, by how many quarters they are. */
const COUNTED = [
  [2, 'half'],
  [1, 'quarter'],
  [0.5, 'eighth'],
  [0.25, '16th'],
] as const;

function tempoOf({ meter, feel }: Pattern, tempo: number): XmlElement {
  const quarter = quarterTempo(tempo, meter);
  // The note that the tempo counts: so many quarters of it.
  const quarters = quarter / tempo;
  const dotted = COUNTED.find(([q]) => Math.abs(q * 1.5 - quarters) < 1e-6);
  const plain = COUNTED.find(([q]) => Math.abs(q - quarters) < 1e-6);
  const metronome = el(
    'metronome',
    {},
    el('beat-unit', {}, (dotted ?? plain)?.[1] ?? 'quarter'),
    dotted !== undefined && el('beat-unit-dot'),
    el('per-minute', {}, dotted || plain ? tempo : quarter),
  );
  return el(
    'direction',
    { placement: 'above' },
    el('direction-type', {}, metronome),
    el('sound', { tempo: Math.round(quarter * 1000) / 1000 }, swingOf(feel)),
  );
}

function swingOf(feel: Feel): Child {
  if (feel.kind === 'straight') return null;
  const first = Math.round(feel.ratio * 1000);
  return el(
    'swing',
    {},
    el('first', {}, first),
    el('second', {}, 1000 - first),
    el('swing-type', {}, feel.on === 'eighths' ? 'eighth' : '16th'),
  );
}

function notesOf(
  event: ScoreEvent,
  index: number,
  voice: ScoreVoice,
  number: number,
  bar: ScoreBar,
  pattern: Pattern,
): XmlElement[] {
  const own = event.strokes.flatMap((i) => pattern.strokes[i] ?? []);
  const timing = {
    duration: el('duration', {}, event.length),
    voice: el('voice', {}, number),
    value: [
      event.tuplet === null && own.length === 0 && event.length === barTicks(pattern.meter)
        ? null
        : el('type', {}, TYPES[event.value]),
      event.dots === 1 && el('dot'),
      modificationOf(event, voice),
    ],
  };
  const ends = tupletEnds(event, index, voice);
  if (own.length === 0)
    return [
      el(
        'note',
        {},
        el('rest'),
        timing.duration,
        timing.voice,
        timing.value,
        ends.length > 0 && el('notations', {}, ends),
      ),
    ];
  const stem = el('stem', {}, number === 1 ? 'up' : 'down');
  const beams = beamsOf(event, index, voice);
  // From low to high, as a chord is read.
  const ordered = [...own].sort((a, b) => heightOf(a.voice) - heightOf(b.voice));
  const graces = ordered.flatMap((s) => graceNotes(s, number));
  const notes = ordered.map((s, i) =>
    el(
      'note',
      {},
      i > 0 && el('chord'),
      unpitched(s.voice),
      timing.duration,
      el('instrument', { id: idOf(s.voice) }),
      timing.voice,
      timing.value,
      stem,
      headOf(s.voice, s.level === 'ghost'),
      i === 0 && beams,
      notationsOf(s, i === 0 ? ends : []),
    ),
  );
  return [...graces, ...notes];
}

function unpitched(voice: Voice): XmlElement {
  const { step, octave } = placeOf(voice);
  return el('unpitched', {}, el('display-step', {}, step), el('display-octave', {}, octave));
}

function headOf(voice: Voice, ghost: boolean): Child {
  const { head } = placeOf(voice);
  return head === 'normal' && !ghost ? null : el('notehead', { parentheses: ghost ? 'yes' : null }, head);
}

function heightOf(voice: Voice): number {
  const { step, octave } = placeOf(voice);
  return octave * 7 + 'CDEFGAB'.indexOf(step);
}

function graceNotes(stroke: Stroke, number: number): XmlElement[] {
  const { many, voice: sounds } = gracesOf(stroke) ?? { many: 0, voice: stroke.voice };
  return Array.from({ length: many }, () =>
    el(
      'note',
      {},
      el('grace', { slash: many === 1 ? 'yes' : null }),
      unpitched(sounds),
      el('instrument', { id: idOf(sounds) }),
      el('voice', {}, number),
      el('type', {}, many === 1 ? 'eighth' : '16th'),
      el('stem', {}, 'up'),
      headOf(sounds, false),
    ),
  );
}

function notationsOf(s: Stroke, ends: readonly XmlElement[]): Child {
  const open = s.voice === 'hat-open' ? el('open') : s.voice === 'hat-half' ? el('half-muted') : null;
  const finger = isHand(s.limb) || s.limb === 'J' ? el('fingering', { placement: 'below' }, s.limb) : null;
  const all = [
    ...ends,
    s.ornament === 'buzz' && el('ornaments', {}, el('tremolo', { type: 'unmeasured' }, 0)),
    (finger !== null || open !== null) && el('technical', {}, finger, open),
    s.level === 'accent' && el('articulations', {}, el('accent')),
  ].filter((x) => x !== false);
  return all.length > 0 && el('notations', {}, all);
}

function modificationOf({ tuplet }: ScoreEvent, { tuplets }: ScoreVoice): Child {
  const found = tuplet === null ? undefined : tuplets[tuplet];
  if (!found) return null;
  return el('time-modification', {}, el('actual-notes', {}, found.notes), el('normal-notes', {}, found.inTimeOf));
}

function tupletEnds(event: ScoreEvent, index: number, { events }: ScoreVoice): XmlElement[] {
  if (event.tuplet === null) return [];
  const first = events[index - 1]?.tuplet !== event.tuplet;
  const last = events[index + 1]?.tuplet !== event.tuplet;
  return [
    ...(first ? [el('tuplet', { type: 'start', number: 1 })] : []),
    ...(last ? [el('tuplet', { type: 'stop', number: 1 })] : []),
  ];
}

/** Beams of a note: one for an eighth, more for what is shorter, each as far as its neighbours have it too. */
function beamsOf(event: ScoreEvent, index: number, { events }: ScoreVoice): XmlElement[] {
  const many = (e: ScoreEvent | undefined): number =>
    e && e.beam !== null && e.beam === event.beam ? Math.log2(Number(e.value)) - 2 : 0;
  if (event.beam === null) return [];
  const [before, after] = [many(events[index - 1]), many(events[index + 1])];
  return Array.from({ length: many(event) }, (_, i) => {
    const [left, right] = [before > i, after > i];
    const says =
      left && right ? 'continue' : left ? 'end' : right ? 'begin' : before > 0 ? 'backward hook' : 'forward hook';
    return el('beam', { number: i + 1 }, says);
  });
}
