import { strFromU8 } from 'fflate';
import { readFail, type Read } from '../../base';
import { USUAL_MAP, type MidiMap } from '../../stroke';
import { readShared, type SharedPhrase } from '../shared';
import type { Song } from '../song';
import { isZip, scoreOfMxl, type MxlCode } from './mxl';
import { PartReader, type PartCode } from './part';
import { musicXmlOf, OWN_FIELD } from './write';
import { all, child, readXml, textOf, type Xml, type XmlCode } from './xml';

export type MusicXmlCode = XmlCode | MxlCode | PartCode | 'not-a-score';

/**
 * Reads a score, plain or compressed (.musicxml, .xml, .mxl): the part with a percussion clef, else the first that has
 * notes. What it does not read is counted and named among the problems. Never throws.
 * @example
 * readMusicXml(new TextEncoder().encode('<a>')).problems[0].code // => "not-xml"
 */
export function readMusicXml(bytes: Uint8Array, map: MidiMap = USUAL_MAP): Read<Song, MusicXmlCode> {
  let text: string;
  if (isZip(bytes)) {
    const score = scoreOfMxl(bytes);
    if (!score.ok) return score;
    text = score.value;
  } else text = textOfBytes(bytes);
  const read = readXml(text);
  if (!read.ok) return read;
  const root = read.value;
  if (root.name === 'score-timewise')
    return readFail(
      'not-a-score',
      null,
      'This score is written bar by bar for all parts (timewise). Save it as partwise.',
    );
  if (root.name !== 'score-partwise')
    return readFail('not-a-score', null, `This is not a score: it begins with <${root.name.slice(0, 40)}>.`);
  const own = ownOf(root, map);
  const part = partOf(root);
  if (!part) return readFail('no-notes', null, 'There is no part with notes in this score.');
  return new PartReader(root, part, map).read(own);
}

/** The text of a file: UTF-8, or UTF-16 where it says so in its first bytes. */
function textOfBytes(bytes: Uint8Array): string {
  const [a, b] = [bytes[0], bytes[1]];
  if ((a === 0xff && b === 0xfe) || (a === 0xfe && b === 0xff)) {
    let out = '';
    for (let i = 2; i + 1 < bytes.length; i += 2) {
      const [x = 0, y = 0] = [bytes[i], bytes[i + 1]];
      out += String.fromCharCode(a === 0xff ? x | (y << 8) : (x << 8) | y);
    }
    return out;
  }
  return strFromU8(a === 0xef && b === 0xbb ? bytes.subarray(3) : bytes);
}

/** The phrase a score of ours carries, where its notes are still those of the phrase. */
function ownOf(root: Xml, map: MidiMap): SharedPhrase | null {
  const field = all(child(child(root, 'identification'), 'miscellaneous'), 'miscellaneous-field').find(
    (f) => f.attributes['name'] === OWN_FIELD,
  );
  const read = field && readShared(field.text);
  if (!read?.ok) return null;
  const again = readXml(musicXmlOf(read.value, map).xml);
  if (!again.ok) return null;
  const bare = (x: Xml): string =>
    x.children
      .filter((c) => c.name === 'part')
      .map(sameNotes)
      .join();
  return bare(again.value) === bare(root) ? read.value : null;
}

/** All of a part that is music, as text: what an editor adds of layout does not make it another. */
function sameNotes(e: Xml): string {
  const skipped = ['print', 'stem', 'beam', 'key', 'staves', 'staff', 'midi-instrument'];
  if (skipped.includes(e.name)) return '';
  return `<${e.name} ${e.attributes['parentheses'] ?? ''}${e.attributes['number'] ?? ''}>${e.children.length > 0 ? e.children.map(sameNotes).join('') : e.text.trim()}`;
}

function partOf(root: Xml): Xml | null {
  const parts = all(root, 'part').filter((p) => p.children.some((m) => child(m, 'note') !== null));
  const drums = parts.find((p) =>
    p.children.some(
      (m) =>
        all(m, 'attributes').some((a) => textOf(child(a, 'clef'), 'sign') === 'percussion') ||
        all(m, 'note').some((n) => child(n, 'unpitched') !== null),
    ),
  );
  return drums ?? parts[0] ?? null;
}
