import { count } from '@core/base';
import { choicesFor, distinctBars, barsAlike, runsWords, takeBars, type Song, type TakeWish } from '@core/formats/song';
import { midiOf, readMidi } from '@core/formats/midi';
import { musicXmlOf, mxlOf, readMusicXml } from '@core/formats/musicxml';
import { phraseCode, readPhraseCode, readShared, type SharedPhrase } from '@core/formats/shared';
import { lessonCode, readLesson, readLessonCode, readReport } from '@core/formats/lesson';
import type { Lesson, Report } from '@core/lesson';
import { wavBytes, wavEnd, wavHead, type WavForm } from '@core/formats/wav';
import type { GridChoice } from '@core/listen';
import type { Pattern } from '@core/pattern';
import type { Loudness } from '@core/playback';
import { recipeOf, type Recipe } from '@core/recipe';
import { MOST_TRACK_SECONDS, trackSeconds, type TrackPart } from '@core/rendition';
import type { MidiMap, Voice } from '@core/stroke';
import { feelWords, gridName, meterText } from '@core/time';
import { mixed } from '../sound/mixing';

/** A bar that is offered to be taken. */
export interface OfferedBar {
  /** Its place among all bars, from 0. */
  readonly index: number;
  readonly number: number;
  readonly meter: string;
  readonly pattern: Pattern;
  /** "again in 5–12"; empty where it stands once. */
  readonly again: string;
  /** How many bars on end from here can be one phrase. */
  readonly room: number;
}

/** A MIDI key of a file: how many notes it has, and the voice it is on the map; null for none. */
export interface UsedKey {
  readonly key: number;
  readonly many: number;
  readonly voice: Voice | null;
}

/** What was brought in. */
export type Opened =
  | {
      readonly kind: 'song';
      readonly format: 'MIDI' | 'MusicXML';
      readonly name: string;
      /** Quarters a minute. */
      readonly bpm: number;
      readonly facts: string;
      readonly bars: readonly OfferedBar[];
      /** Distinct bars that are not listed. */
      readonly more: number;
      readonly keys: readonly UsedKey[];
      /** Channels that have notes, counted from 1; and the one that was asked for. */
      readonly channels: readonly number[];
      readonly channel: number | null;
      readonly told: readonly string[];
      readonly own: SharedPhrase | null;
    }
  | { readonly kind: 'phrase'; readonly phrase: SharedPhrase }
  /** A lesson or a report, which have a place of their own. */
  | { readonly kind: 'lesson'; readonly lesson: Lesson }
  | { readonly kind: 'report'; readonly report: Report }
  /** A shelf file, which has a place of its own. */
  | { readonly kind: 'shelf' }
  | { readonly kind: 'refused'; readonly words: string }
  /** What reads it could not be fetched. */
  | { readonly kind: 'unfetched' };

/** Bars as they would be taken. */
export interface Taking {
  readonly pattern: Pattern;
  readonly recipe: Recipe;
  readonly hands: readonly string[];
  readonly left: readonly string[];
  /** The ways to lay it on a grid, in words, and which one this is. */
  readonly ways: readonly { readonly words: string; readonly left: string }[];
  readonly way: number;
}

/** A phrase as a score. */
export interface Score {
  readonly xml: string;
  readonly mxl: Uint8Array<ArrayBuffer>;
  readonly rounded: number;
}

/** What is written as sound. */
export interface SoundWish {
  readonly parts: readonly TrackPart[];
  readonly form: WavForm;
  readonly loudness: Loudness;
}

/** How a lesson or a report begins, and the largest that is read, in bytes. */
const LESSON = /"format"\s*:\s*"loop-shelf-(lesson|report)"/;
const MOST_LESSON_BYTES = 20_000_000;

/** Distinct bars that are listed at once. */
const LISTED = 48;
/** So many bytes are put together before they leave the worker’s own memory. */
const PILE = 8_000_000;

export type Wish = Omit<TakeWish, 'choice' | 'bpm'>;

/** Reads what others wrote and writes what others read: all of it aside from the page. */
export class ExchangeEngine {
  private song: Song | null = null;

  /** `channel` is the MIDI channel that is read, from 0; null for percussion’s. */
  open(bytes: Uint8Array, map: MidiMap, wish: Wish, channel: number | null = null): Opened {
    this.song = null;
    const begin = String.fromCharCode(...bytes.subarray(0, 400));
    if (begin.startsWith('MThd')) return this.opened('MIDI', readMidi(bytes, { map, channel }), wish, channel);
    if (begin.startsWith('PK\x03\x04') || /^(\xef\xbb\xbf|\xff\xfe|\xfe\xff|\s)*</.test(begin))
      return this.opened('MusicXML', readMusicXml(bytes, map), wish, null);
    if (/^\s*\{\s*"format"\s*:\s*"loop-shelf"/.test(begin)) return { kind: 'shelf' };
    if (/^(RIFF|ID3|fLaC|OggS|\xff[\xe0-\xff])/.test(begin) || begin.slice(4, 8) === 'ftyp')
      return { kind: 'refused', words: 'This is a recording. Open it in Listen to make a phrase of it.' };
    const text = bytes.length <= MOST_LESSON_BYTES ? new TextDecoder().decode(bytes) : '';
    if (LESSON.test(text.slice(0, 2000))) return this.text(text);
    if (bytes.length > 2_000_000)
      return { kind: 'refused', words: 'This file is too large. Bring in MIDI, a score or a shelf file.' };
    return this.text(text);
  }

  /** What was pasted: a link, a phrase as text. */
  text(text: string): Opened {
    const lesson = this.lessonIn(text);
    if (lesson) return lesson;
    const code = /[#&]p=([A-Za-z0-9_-]+)/.exec(text)?.[1];
    const read = code !== undefined ? readPhraseCode(code) : readShared(text.trim());
    if (read.ok) return { kind: 'phrase', phrase: read.value };
    if (code !== undefined || text.trim().startsWith('{')) return { kind: 'refused', words: read.problems[0].message };
    return {
      kind: 'refused',
      words:
        'This kind of file cannot be read. Bring in MIDI (.mid), a score (.musicxml, .mxl) or a shelf file (.json).',
    };
  }

  /** A lesson or a report, as a link or as a file; null where the text is neither. */
  private lessonIn(text: string): Opened | null {
    const code = /[#&]l=([A-Za-z0-9_-]+)/.exec(text)?.[1];
    if (code === undefined && !LESSON.test(text.slice(0, 2000))) return null;
    if (code === undefined && /"loop-shelf-report"/.test(text.slice(0, 2000))) {
      const read = readReport(text);
      return read.ok ? { kind: 'report', report: read.value } : { kind: 'refused', words: read.problems[0].message };
    }
    const read = code === undefined ? readLesson(text) : readLessonCode(code);
    return read.ok ? { kind: 'lesson', lesson: read.value } : { kind: 'refused', words: read.problems[0].message };
  }

  /** A lesson as the letters of a link. */
  lessonCode(lesson: Lesson): string {
    return lessonCode(lesson);
  }

  private opened(
    format: 'MIDI' | 'MusicXML',
    read: ReturnType<typeof readMidi | typeof readMusicXml>,
    wish: Wish,
    channel: number | null,
  ): Opened {
    if (!read.ok) return { kind: 'refused', words: read.problems[0].message };
    const song = read.value;
    this.song = song;
    const distinct = distinctBars(song);
    const offered = distinct.slice(0, LISTED).flatMap((d): OfferedBar[] => {
      const index = song.bars.indexOf(d.bar);
      const taken = takeBars(song, index, 1, { ...wish, bpm: this.tempo(), choice: this.first(index, 1) });
      if (!taken) return [];
      return [
        {
          index,
          number: d.bar.number,
          meter: meterText(d.bar.meter),
          pattern: taken.pattern,
          again: d.again.length > 0 ? `again in ${runsWords(d.again)}` : '',
          room: Math.min(64, barsAlike(song.bars, index)),
        },
      ];
    });
    const bars = song.bars.filter((b) => b.number > 0).length;
    return {
      kind: 'song',
      format,
      name: song.name,
      bpm: song.bpm,
      facts: [
        `${count(bars, 'bar')}, ${distinct.length === 1 ? 'all alike' : `${distinct.length} of them different`}`,
        `${Math.round(song.bpm)} bpm in quarters${song.tempos > 1 ? ` at first, ${song.tempos} tempos in all` : ''}`,
        song.feel?.kind === 'swung' ? feelWords(song.feel) : '',
      ]
        .filter((w) => w !== '')
        .join(' · '),
      bars: offered,
      more: Math.max(0, distinct.length - LISTED),
      keys: keysOf(song),
      channels: song.channels.map((c) => c + 1),
      channel: channel === null ? null : channel + 1,
      told: read.problems.map((p) => p.message),
      own: song.own,
    };
  }

  /** Some bars on end as one phrase, laid on a grid by one of the ways. Null where there is nothing in them. */
  take(from: number, many: number, way: number, wish: Wish): Taking | null {
    const { song } = this;
    if (!song) return null;
    const choices = this.choices(from, many);
    const choice = choices[way] ?? choices[0] ?? null;
    const taken = takeBars(song, from, many, { ...wish, bpm: this.tempo(), choice });
    const recipe = taken && recipeOf(taken.pattern);
    if (!taken || !recipe) return null;
    return {
      ...taken,
      recipe,
      ways: choices.map((c) => ({
        words: c === null ? 'as written' : wayWords(c),
        left: c === null ? 'fits exactly' : `${ms(c.mean)} off on average, at most ${ms(c.worst)}`,
      })),
      way: Math.max(0, choices.indexOf(choice)),
    };
  }

  /** A score stands where it is written; what was played is laid on grids. */
  private choices(from: number, many: number): readonly (GridChoice | null)[] {
    const { song } = this;
    if (!song) return [];
    return song.written ? [null] : choicesFor(song, from, many);
  }

  private first(from: number, many: number): GridChoice | null {
    return this.choices(from, many)[0] ?? null;
  }

  private tempo(): number {
    return Math.min(400, Math.max(20, Math.round(this.song?.bpm ?? 90)));
  }

  /** A track as a WAV file. In pieces, so that an hour of it needs no more memory than a minute. */
  sound({ parts, form, loudness }: SoundWish, tell: (share: number) => void): Blob {
    const seconds = trackSeconds(parts);
    if (seconds > MOST_TRACK_SECONDS) throw new Error('a track is at most two hours long');
    const total = Math.max(1, seconds * form.rate);
    const piles: Blob[] = [];
    let pile: Uint8Array<ArrayBuffer>[] = [];
    let [held, samples] = [0, 0];
    for (const block of mixed(parts, form.rate, loudness)) {
      const bytes = wavBytes(block, form.bits);
      pile.push(bytes);
      held += bytes.length;
      samples += block.length;
      if (held > PILE) {
        piles.push(new Blob(pile));
        [pile, held] = [[], 0];
        tell(Math.min(1, samples / total));
      }
    }
    return new Blob([wavHead(samples, form), ...piles, ...pile, wavEnd(samples, form)], { type: 'audio/wav' });
  }

  /** A phrase as a MIDI file. */
  midi(phrase: SharedPhrase, map: MidiMap): Uint8Array<ArrayBuffer> {
    return new Uint8Array(midiOf(phrase, map));
  }

  /** A phrase as a score, plain and zipped, with how many strokes lie on the nearest 64th. */
  score(phrase: SharedPhrase, map: MidiMap): Score {
    const { xml, rounded } = musicXmlOf(phrase, map);
    return { xml, mxl: new Uint8Array(mxlOf(xml)), rounded };
  }

  /** The letters of a phrase for a link. */
  code(phrase: SharedPhrase): string {
    return phraseCode(phrase);
  }
}

function wayWords({ grid, feel, mixed: own }: GridChoice): string {
  const swing = feel.kind === 'swung' ? `, ${feelWords(feel)}` : '';
  return `${gridName(grid)}${swing}${own > 0 ? `, ${count(own, 'beat')} on another` : ''}`;
}

function ms(n: number): string {
  const off = Math.abs(n);
  return `${off < 1 ? Math.round(off * 10) / 10 : Math.round(off)} ms`;
}

/** The keys of a file, those on no voice first. */
function keysOf(song: Song): readonly UsedKey[] {
  const all = new Map<number, UsedKey>();
  for (const { key, voice } of song.notes)
    if (key !== undefined) all.set(key, { key, voice, many: (all.get(key)?.many ?? 0) + 1 });
  return [...all.values()].sort((a, b) => Number(a.voice !== null) - Number(b.voice !== null) || b.many - a.many);
}
