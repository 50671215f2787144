import { Checksum, count, isShallow, readFail, type Read } from '../../base';
import { EMPTY_SHELF, SHELF_LIMITS, type Named, type ShelfContents } from '../../shelf';
import { RULES, type Rule } from './rules';
import { SHELF_FORMAT, SHELF_VERSION } from './schema';
import { FILE_LISTS, isOwnField, type FileList } from './write';

export type ShelfCode =
  'not-json' | 'cut-off' | 'too-large' | 'not-a-shelf' | 'newer' | 'wrong-part' | 'twice' | 'stopped';

/** A shelf as a file held it, and whether the file is to the letter as Loop Shelf wrote it. */
export interface ShelfRead {
  readonly contents: ShelfContents;
  /** Changed: by hand, or by damage that left it readable. Unknown: written before files carried a sum. */
  readonly file: 'as written' | 'changed' | 'unknown';
}

/** A file that is not in lines, as an editor may leave it, is read as a whole, up to so many letters. */
export const WHOLE_MOST = 256 * 1024 * 1024;

/**
 * Reads a shelf file as one text. Either all of it is good, or nothing is read and the first problem says what is wrong
 * and where. Never throws.
 * @example
 * readShelf('{').problems[0].message // => "This file is cut off: it ends in the middle of the shelf. Save it again where it came from."
 * readShelf('hello').problems[0].code // => "not-json"
 */
export function readShelf(text: string): Read<ShelfRead, ShelfCode> {
  const lines = new ShelfLines();
  for (let at = 0; at < text.length && lines.goes; at += 1 << 20) lines.push(text.slice(at, at + (1 << 20)));
  return lines.end() ?? readWhole(text);
}

/** Fields of later versions that a file may have: far more than any has. */
const MOST_OTHERS = 1000;

/** What a line of the file may be, by where one is in it. */
type Where = 'head' | 'between' | 'list' | 'over';

/**
 * Reads a shelf file that comes in pieces, a line at a time: a file of any size, without its whole text in memory.
 * `end` gives null for a file that is not in lines as Loop Shelf writes them: it is to be read as a whole.
 */
export class ShelfLines {
  private where: Where = 'head';
  private version = SHELF_VERSION;
  private rest = '';
  private list: FileList = 'phrases';
  private readonly rows: Record<FileList, unknown[]>;
  private readonly others: [string, unknown][] = [];
  private readonly sum = new Checksum();
  private failed: Read<never, ShelfCode> | null = null;
  private odd = false;
  private written: string | null = null;
  private summed = '';

  constructor() {
    this.rows = Object.fromEntries(FILE_LISTS.map((n) => [n, []])) as unknown as Record<FileList, unknown[]>;
  }

  /** Whether it is worth going on: nothing wrong was met, and the file is in lines. */
  get goes(): boolean {
    return !this.odd && this.failed === null;
  }

  push(text: string): void {
    if (this.where === 'over' && this.rest === '' && text.trim() === '') return;
    if (!text.includes('\n')) {
      this.rest += text;
      return;
    }
    const lines = (this.rest + text).split('\n');
    this.rest = lines.pop() ?? '';
    for (const line of lines) {
      if (!this.goes) return;
      this.take(line);
    }
  }

  end(): Read<ShelfRead, ShelfCode> | null {
    if (this.failed) return this.failed;
    if (this.odd || this.where === 'head') return null;
    if (this.where !== 'over' || this.rest.trim() !== '') return cutOff();
    const found = checked(this.rows, Object.fromEntries(this.others), this.version);
    if (!found.ok) return found;
    const file = this.written === null ? 'unknown' : this.written === this.summed ? 'as written' : 'changed';
    return { ok: true, value: { contents: found.value, file }, problems: [] };
  }

  private take(line: string): void {
    switch (this.where) {
      case 'head': {
        const version = /^\{"format":"loop-shelf","version":(\d{1,6}),$/.exec(line)?.[1];
        if (version === undefined) this.odd = true;
        else if (Number(version) > SHELF_VERSION) this.failed = newer(Number(version));
        // The first was not in lines.
        else if (Number(version) < 2) this.odd = true;
        else this.version = Number(version);
        this.where = 'between';
        break;
      }
      case 'between':
        return this.between(line);
      case 'list':
        if (line === '],' || line === ']') this.where = 'between';
        else this.row(line);
        break;
      case 'over':
        if (line.trim() !== '') this.odd = true;
        return;
    }
    this.sum.add(line).add('\n');
  }

  private between(line: string): void {
    const opened = /^"(\w+)":\[$/.exec(line)?.[1];
    const name = FILE_LISTS.find((n) => n === opened);
    const sum = /^"checksum":"([0-9a-f]+)"$/.exec(line)?.[1];
    if (name) {
      this.list = name;
      this.where = 'list';
    } else if (sum !== undefined) {
      this.written = sum;
      this.summed = this.sum.toString();
      return;
    } else if (line === '}') {
      this.where = 'over';
      return;
    } else {
      // Nothing of ours leaves a line empty.
      const field = line === '' ? { ok: false as const } : parsed(`{${line.replace(/,$/, '')}}`);
      if (this.others.length >= MOST_OTHERS) this.failed = tooManyFields();
      if (field.ok && typeof field.value === 'object' && field.value !== null)
        this.others.push(...Object.entries(field.value));
      else this.odd = true;
    }
    this.sum.add(line).add('\n');
  }

  private row(line: string): void {
    const value = parsed(line.endsWith(',') ? line.slice(0, -1) : line);
    // Lines that end elsewhere: an editor set them, or something is missing. Reading it as a whole tells.
    if (!value.ok) this.odd = true;
    else {
      const own = this.rows[this.list];
      own.push(value.value);
      if (own.length > SHELF_LIMITS[this.list]) this.odd = true;
    }
  }
}

/** A file that is not in lines: as older versions wrote it, or as an editor set it. */
function readWhole(text: string): Read<ShelfRead, ShelfCode> {
  if (text.length > WHOLE_MOST) return tooLarge(text.length);
  const whole = parsed(text);
  if (!whole.ok) {
    const cut = text.trimStart().startsWith('{') && !text.trimEnd().endsWith('}');
    if (cut || text.trim() === '{') return cutOff();
    return readFail('not-json', null, 'This is not a shelf file: it cannot be read as JSON.');
  }
  const { value } = whole;
  const fields = new Map<string, unknown>(Object.entries(typeof value === 'object' && value !== null ? value : {}));
  if (fields.get('format') !== SHELF_FORMAT)
    return readFail('not-a-shelf', { path: '/format' }, 'This is not a shelf file: it does not say that it is one.');
  const version = fields.get('version');
  if (typeof version === 'number' && version > SHELF_VERSION) return newer(version);
  if (version !== 1 && version !== 2 && version !== 3 && version !== SHELF_VERSION)
    return readFail('wrong-part', { path: '/version' }, 'In version: it must be 1, 2, 3 or 4. Nothing was read.');
  const rows: Record<string, unknown> = {};
  for (const name of FILE_LISTS) {
    const list = fields.get(name);
    if (list === undefined && !isNeeded(name)) rows[name] = [];
    else if (!Array.isArray(list)) return wrongPart(name, null, { where: '', words: 'it must be a list' });
    else if (list.length > SHELF_LIMITS[name]) return tooMany(name, list.length);
    else rows[name] = list;
  }
  if (version === 1) rows['named'] = namedOf1(fields);
  const others = Object.fromEntries(
    [...fields].filter(([key]) => !isOwnField(key) && !(version === 1 && OF_1.has(key))),
  );
  const found = checked(rows as Record<FileList, unknown[]>, others, version);
  if (!found.ok) return found;
  const file = version === 1 ? 'unknown' : 'changed';
  return { ok: true, value: { contents: found.value, file }, problems: [] };
}

/** What version 1 kept beside the lists. */
const OF_1: ReadonlySet<string> = new Set(['settings', 'kits', 'profile']);

function namedOf1(fields: ReadonlyMap<string, unknown>): Named[] {
  return [...OF_1].flatMap((key) => (fields.has(key) ? [{ key, value: fields.get(key) }] : []));
}

function isNeeded(name: FileList): boolean {
  return name === 'phrases' || name === 'attempts' || name === 'drills';
}

/**
 * Every row by its rule, older ones put into today's form first, and no id twice. Rows whose phrase is gone are good:
 * they wait for it.
 */
function checked(
  rows: Readonly<Record<FileList, readonly unknown[]>>,
  others: Readonly<Record<string, unknown>>,
  version: number,
): Read<ShelfContents, ShelfCode> {
  const read: Partial<Record<FileList, readonly unknown[]>> = {};
  const fields = Object.entries(others);
  if (fields.length > MOST_OTHERS) return tooManyFields();
  const deep = fields.find(([, value]) => !isShallow(value));
  if (deep)
    return readFail(
      'wrong-part',
      { path: `/${deep[0].slice(0, 60)}` },
      `In ${deep[0].slice(0, 60)}: it is nested too deep. Nothing was read.`,
    );
  for (const name of FILE_LISTS) {
    const given = rows[name];
    if (given.length > SHELF_LIMITS[name]) return tooMany(name, given.length);
    const rule: Rule = RULES[name === 'named' ? 'kept' : name];
    const own = version < SHELF_VERSION && rule.modern ? given.map(rule.modern) : given;
    read[name] = own;
    const seen = new Set<unknown>();
    for (const [i, row] of own.entries()) {
      const problem = rule(row);
      if (problem) return wrongPart(name, i, problem);
      const { id, key } = row as { readonly id?: unknown; readonly key?: unknown };
      const own = id ?? key;
      if (seen.has(own))
        return readFail(
          'twice',
          { path: `/${name}/${i}` },
          `In ${NOUNS[name]} ${i + 1}: the id “${String(own)}” stands there twice. Nothing was read.`,
        );
      seen.add(own);
    }
  }
  return { ok: true, value: { ...EMPTY_SHELF, ...(read as unknown as ShelfContents), others }, problems: [] };
}

/** The problem of a file that is too large to be read as a whole, from its size in bytes. */
export function tooLarge(bytes: number): Read<never, ShelfCode> {
  const size = `${Math.round(bytes / 1024 / 1024)} MB`;
  return readFail(
    'too-large',
    null,
    `This file is ${size} and not as Loop Shelf writes it; such a file is read up to ${WHOLE_MOST / 1024 / 1024} MB.`,
  );
}

function parsed(text: string): { readonly ok: true; readonly value: unknown } | { readonly ok: false } {
  try {
    return { ok: true, value: JSON.parse(text) as unknown };
  } catch {
    return { ok: false };
  }
}

function cutOff(): Read<never, ShelfCode> {
  return readFail(
    'cut-off',
    null,
    'This file is cut off: it ends in the middle of the shelf. Save it again where it came from.',
  );
}

function newer(version: number): Read<never, ShelfCode> {
  return readFail(
    'newer',
    { path: '/version' },
    `This shelf was saved by a newer Loop Shelf (version ${version}; this one reads ${SHELF_VERSION}). Update, then read it again.`,
  );
}

const NOUNS: Readonly<Record<FileList, string>> = {
  phrases: 'phrase',
  attempts: 'log entry',
  drills: 'drill',
  takes: 'take',
  states: 'earlier state',
  removals: 'removal',
  boards: 'board',
  shows: 'show',
  showStates: 'earlier show',
  freeSittings: 'sitting',
  lessons: 'lesson',
  clips: 'clip',
  named: 'named part',
};
const PLURALS: Partial<Readonly<Record<FileList, string>>> = { attempts: 'log entries' };

function tooMany(name: FileList, many: number): Read<never, ShelfCode> {
  return readFail(
    'too-large',
    { path: `/${name}` },
    `This file holds ${count(many, NOUNS[name], PLURALS[name])}; a shelf holds at most ${SHELF_LIMITS[name]}.`,
  );
}

function tooManyFields(): Read<never, ShelfCode> {
  const words = `This file has more than ${MOST_OTHERS} parts that Loop Shelf does not know. Nothing was read.`;
  return readFail('too-large', null, words);
}

function wrongPart(
  name: FileList,
  index: number | null,
  { where, words }: { readonly where: string; readonly words: string },
): Read<never, ShelfCode> {
  const part = index === null ? name : `${NOUNS[name]} ${index + 1}`;
  return readFail(
    'wrong-part',
    { path: `/${name}${index === null ? '' : `/${index}`}` },
    `In ${part}${where ? `, ${where}` : ''}: ${words}. Nothing was read.`,
  );
}
