import { count, readFail, type Problem, type Read } from '../../base';
import { validateShelfFile, type ValidationError } from './generated/validators';
import { SHELF_FORMAT, SHELF_LIMITS, SHELF_VERSION, type ShelfFile } from './schema';

export type ShelfCode =
  'not-json' | 'cut-off' | 'too-large' | 'not-a-shelf' | 'newer' | 'wrong-part' | 'twice' | 'loose-end';

/**
 * Reads a shelf file. Either all of it is good, or nothing is read and the first problem says what is wrong and where.
 * Never throws.
 * @example
 * readShelf('{').problems[0].message // => "This file is cut off: it ends in the middle of the shelf. Save it again where it came from."
 * readShelf('hello').problems[0].code // => "not-json"
 */
export function readShelf(text: string): Read<ShelfFile, ShelfCode> {
  if (text.length > SHELF_LIMITS.bytes) return tooLarge(text.length);
  const parsed = parseJson(text);
  if (!parsed.ok) return parsed;
  const { value } = parsed;
  const head = readHead(value);
  if (head) return { ok: false, problems: [head] };
  if (!validateShelfFile(value)) return { ok: false, problems: [wrongPart(validateShelfFile.errors?.[0])] };
  const clash = repeatedId(value);
  return clash ? { ok: false, problems: [clash] } : { ok: true, value, problems: [] };
}

/** The problem of a file that is too large to be read at all, from its size in bytes. */
export function tooLarge(bytes: number): Read<never, ShelfCode> {
  const size = `${Math.round(bytes / 1024 / 1024)} MB`;
  return readFail(
    'too-large',
    null,
    `This file is ${size}; a shelf file is at most ${SHELF_LIMITS.bytes / 1024 / 1024} MB.`,
  );
}

function parseJson(text: string): Read<unknown, ShelfCode> {
  try {
    return { ok: true, value: JSON.parse(text) as unknown, problems: [] };
  } catch {
    const cut = text.trimStart().startsWith('{') && !text.trimEnd().endsWith('}');
    if (cut || text.trim() === '{') {
      return readFail(
        'cut-off',
        null,
        'This file is cut off: it ends in the middle of the shelf. Save it again where it came from.',
      );
    }
    return readFail('not-json', null, 'This is not a shelf file: it cannot be read as JSON.');
  }
}

/** What is wrong with the head of the file, or with the number of things it holds. */
function readHead(value: unknown): Problem<ShelfCode> | null {
  const fields = new Map<string, unknown>(Object.entries(typeof value === 'object' && value !== null ? value : {}));
  if (fields.get('format') !== SHELF_FORMAT)
    return {
      code: 'not-a-shelf',
      at: { path: '/format' },
      message: 'This is not a shelf file: it does not say that it is one.',
    };
  const version = fields.get('version');
  if (typeof version === 'number' && version > SHELF_VERSION) {
    return {
      code: 'newer',
      at: { path: '/version' },
      message: `This shelf was saved by a newer Loop Shelf (version ${version}; this one reads ${SHELF_VERSION}). Update, then read it again.`,
    };
  }
  for (const part of ['phrases', 'attempts', 'drills'] as const) {
    const list = fields.get(part);
    if (Array.isArray(list) && list.length > SHELF_LIMITS[part]) {
      return {
        code: 'too-large',
        at: { path: `/${part}` },
        message: `This file holds ${count(list.length, part.slice(0, -1))}; a shelf holds at most ${SHELF_LIMITS[part]}.`,
      };
    }
  }
  return null;
}

const PARTS: ReadonlyMap<string, string> = new Map([
  ['phrases', 'phrase'],
  ['attempts', 'log entry'],
  ['drills', 'drill'],
]);

function wrongPart(error: ValidationError | undefined): Problem<ShelfCode> {
  const path = error?.instancePath ?? '';
  const [, part = '', index = '', ...rest] = path.split('/');
  const noun = PARTS.get(part);
  const where =
    noun && index !== ''
      ? `${noun} ${Number(index) + 1}${rest.length > 0 ? `, ${rest.join(' › ')}` : ''}`
      : part || 'the file';
  return {
    code: 'wrong-part',
    at: { path },
    message: `In ${where}: ${error?.message ?? 'something is wrong'}. Nothing was read.`,
  };
}

function repeatedId(file: ShelfFile): Problem<ShelfCode> | null {
  const phrases = new Set(file.phrases.map((p) => p.id));
  for (const part of ['phrases', 'attempts', 'drills'] as const) {
    const seen = new Set<string>();
    for (const [i, { id }] of file[part].entries()) {
      if (seen.has(id))
        return {
          code: 'twice',
          at: { path: `/${part}/${i}` },
          message: `In ${PARTS.get(part) ?? part} ${i + 1}: the id “${id}” stands there twice. Nothing was read.`,
        };
      seen.add(id);
    }
  }
  const loose = file.drills.findIndex((d) => !phrases.has(d.phrase) || d.rung >= d.rungs.length);
  if (loose >= 0)
    return {
      code: 'loose-end',
      at: { path: `/drills/${loose}` },
      message: `In drill ${loose + 1}: its phrase or its rung is not there. Nothing was read.`,
    };
  return null;
}
