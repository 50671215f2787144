import { readFail, readOk, type Read } from '../../base';
import type { Phrase } from '../../recipe';
import { withSelections } from '../../selection';
import { RULES } from '../shelf-file/rules';
import { packedText, unpackedText } from './packed';

/** What of a phrase leaves in a link or inside another program’s file: all but what is the shelf’s own. */
export type SharedPhrase = Pick<Phrase, 'name' | 'family' | 'recipe' | 'tempo' | 'goal' | 'note'>;

export type SharedCode = 'not-a-phrase' | 'too-large' | 'newer' | 'damaged';

const FORMAT = 'loop-shelf-phrase';
/** Since 2 moves choose by expressions. */
const VERSION = 2;
/** The longest text of a phrase, in bytes. */
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
  return packedText(sharedText(phrase));
}

/**
 * Reads letters back to the phrase. What they unpack to is bounded whatever they say.
 * @example
 * readPhraseCode('no!').problems[0].code // => "damaged"
 */
export function readPhraseCode(code: string): Read<SharedPhrase, SharedCode> {
  const read = unpackedText(code, MOST_TEXT);
  if (read.ok) return readShared(read.text);
  switch (read.why) {
    case 'damaged':
      return readFail('damaged', null, 'This link is damaged: a part of it is missing.');
    case 'too long':
      return readFail('too-large', null, 'This link is too long for a phrase.');
    case 'too large':
      return readFail('too-large', null, 'This is too large for a phrase.');
  }
}
