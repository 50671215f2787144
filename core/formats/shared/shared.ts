import { deflateSync, Inflate, strFromU8, strToU8 } from 'fflate';
import { readFail, readOk, type Read } from '../../base';
import type { Phrase } from '../../recipe';
import { withSelections } from '../../selection';
import { RULES } from '../shelf-file/rules';

/** What of a phrase leaves in a link or inside another program’s file: all but what is the shelf’s own. */
export type SharedPhrase = Pick<Phrase, 'name' | 'family' | 'recipe' | 'tempo' | 'goal' | 'note'>;

export type SharedCode = 'not-a-phrase' | 'too-large' | 'newer' | 'damaged';

const FORMAT = 'loop-shelf-phrase';
/** Since 2 moves choose by expressions. */
const VERSION = 2;
/** The longest code that is read, in letters, and the longest text it may unpack to, in bytes. */
export const MOST_CODE = 200_000;
const MOST_TEXT = 2_000_000;

/** What of a phrase is shared. */
export function sharedOf({ name, family, recipe, tempo, goal, note }: SharedPhrase): SharedPhrase {
  return { name, family, recipe, tempo, goal, note };
}

/** A phrase as text that stands in another program’s file. */
export function sharedText(phrase: SharedPhrase): string {
  return JSON.stringify({ format: FORMAT, version: VERSION, ...sharedOf(phrase) });
}

/**
 * Reads such a text, checked like a shelf file. Never throws.
 * @example
 * readShared('{}').problems[0].message // => "There is no phrase of Loop Shelf in this."
 */
export function readShared(text: string): Read<SharedPhrase, SharedCode> {
  if (text.length > MOST_TEXT) return readFail('too-large', null, 'This is too large for a phrase.');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return readFail('damaged', null, 'This phrase is damaged: a part of it is missing.');
  }
  if (typeof value !== 'object' || value === null || !('format' in value) || value.format !== FORMAT)
    return readFail('not-a-phrase', null, 'There is no phrase of Loop Shelf in this.');
  const { format: _format, version, ...rest } = value as Record<string, unknown>;
  if (typeof version === 'number' && version > VERSION)
    return readFail('newer', null, 'This phrase was made with a newer Loop Shelf. Update, then open it again.');
  const row = withSelections({ ...rest, id: 'shared', created: 0, changed: 0 });
  const wrong = RULES.phrases(row);
  if (wrong)
    return readFail(
      'not-a-phrase',
      { path: wrong.where },
      `This is not a phrase: ${wrong.where || 'it'} ${wrong.words}.`,
    );
  return readOk(sharedOf(row as Phrase));
}

/**
 * A phrase as letters that can stand in an address: compressed, in letters, digits, - and _.
 * @example
 * readPhraseCode(phraseCode({ name: 'Rope', family: 'fill', recipe: { source: { kind: 'typed', text: 'R l', meter: '4/4', grid: 1260 }, moves: [] }, tempo: 90, goal: 104, note: '' })).value.name // => "Rope"
 */
export function phraseCode(phrase: SharedPhrase): string {
  const packed = deflateSync(strToU8(sharedText(phrase)), { level: 9 });
  return lettersOf(packed);
}

/**
 * Reads letters back to the phrase. What they unpack to is bounded whatever they say.
 * @example
 * readPhraseCode('no!').problems[0].code // => "damaged"
 */
export function readPhraseCode(code: string): Read<SharedPhrase, SharedCode> {
  if (code.length > MOST_CODE) return readFail('too-large', null, 'This link is too long for a phrase.');
  const bytes = bytesOf(code);
  const text = bytes && unpacked(bytes);
  if (text === 'too large') return readFail('too-large', null, 'This is too large for a phrase.');
  if (!text) return readFail('damaged', null, 'This link is damaged: a part of it is missing.');
  return readShared(text);
}

function unpacked(bytes: Uint8Array): string | null {
  const parts: Uint8Array[] = [];
  let [total, ended] = [0, false];
  try {
    const inflate = new Inflate((part, last) => {
      total += part.length;
      ended = last;
      if (total > MOST_TEXT) throw new Error('too large');
      parts.push(part.slice());
    });
    // In small steps, so that a bomb is left before it has unpacked.
    for (let at = 0; at < bytes.length; at += 256) inflate.push(bytes.subarray(at, at + 256), at + 256 >= bytes.length);
  } catch {
    return total > MOST_TEXT ? 'too large' : null;
  }
  if (!ended) return null;
  const whole = new Uint8Array(total);
  parts.reduce((at, part) => {
    whole.set(part, at);
    return at + part.length;
  }, 0);
  return strFromU8(whole);
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_';

/** Bytes as base64 with the letters of RFC 4648 §5, without padding. */
function lettersOf(bytes: Uint8Array): string {
  let out = '';
  for (let i = 0; i < bytes.length; i += 3) {
    const three = ((bytes[i] ?? 0) << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    const many = Math.min(3, bytes.length - i) + 1;
    for (let k = 0; k < many; k++) out += LETTERS[(three >> (18 - 6 * k)) & 63] ?? '';
  }
  return out;
}

function bytesOf(text: string): Uint8Array | null {
  if (text.length % 4 === 1 || text === '') return null;
  const out = new Uint8Array(Math.floor((text.length * 3) / 4));
  let [bits, held, at] = [0, 0, 0];
  for (const letter of text) {
    const six = LETTERS.indexOf(letter);
    if (six < 0) return null;
    bits = ((bits << 6) | six) & 0xffff;
    held += 6;
    if (held >= 8) {
      held -= 8;
      out[at++] = (bits >> held) & 255;
    }
  }
  return out;
}
