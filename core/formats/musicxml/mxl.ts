import { strFromU8, strToU8, Unzip, UnzipInflate, zipSync } from 'fflate';
import { readFail, readOk, type Read } from '../../base';

export type MxlCode = 'too-large' | 'not-a-score';

/** Bounds of what is unpacked. */
export const MXL_LIMITS = Object.freeze({ file: 4_000_000, entries: 64, unpacked: 24_000_000 });

const CONTAINER = 'META-INF/container.xml';
/** The earliest time an archive can say, so that the same score is the same bytes. */
const NO_TIME = '1980-01-01T00:00:00';

/** A score as a compressed one (.mxl). */
export function mxlOf(xml: string): Uint8Array {
  const container =
    '<?xml version="1.0" encoding="UTF-8"?>\n<container><rootfiles><rootfile full-path="score.musicxml"' +
    ' media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>';
  return zipSync(
    {
      mimetype: [strToU8('application/vnd.recordare.musicxml'), { level: 0 }],
      [CONTAINER]: strToU8(container),
      'score.musicxml': strToU8(xml),
    },
    { level: 9, mtime: NO_TIME },
  );
}

/** Whether bytes begin as an archive does. */
export function isZip(bytes: Uint8Array): boolean {
  return strFromU8(bytes.subarray(0, 4), true) === 'PK\x03\x04';
}

/**
 * The score inside a .mxl. What the archive says of its sizes and names is not believed: it is unpacked in small
 * pieces, left when it grows too large, and nothing is ever written under a name of its own.
 */
export function scoreOfMxl(bytes: Uint8Array, max = MXL_LIMITS): Read<string, MxlCode> {
  if (bytes.length > max.file)
    return readFail('too-large', null, `This archive is larger than ${max.file / 1_000_000} MB.`);
  if (!isZip(bytes)) return readFail('not-a-score', null, 'This is not a zipped score.');
  const files = new Map<string, Uint8Array[]>();
  let [entries, total] = [0, 0];
  try {
    const unzip = new Unzip((f) => {
      if (++entries > max.entries) throw new Error('it holds too many files');
      if (!/\.(xml|musicxml)$/i.test(f.name)) return;
      const parts: Uint8Array[] = [];
      f.ondata = (error, data, last) => {
        if (error) throw error;
        total += data.length;
        if (total > max.unpacked) throw new Error('it unpacks to far more than a score holds');
        parts.push(data);
        if (last) files.set(f.name, parts);
      };
      f.start();
    });
    unzip.register(UnzipInflate);
    for (let i = 0; i < bytes.length; i += 1024) unzip.push(bytes.subarray(i, i + 1024), i + 1024 >= bytes.length);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return readFail('not-a-score', null, `This archive cannot be read: ${why}.`);
  }
  const path = /full-path\s*=\s*["']([^"']+)["']/.exec(whole(files.get(CONTAINER) ?? []))?.[1];
  const score = path !== undefined ? files.get(path) : [...files].find(([name]) => !name.startsWith('META-INF/'))?.[1];
  return score ? readOk(whole(score)) : readFail('not-a-score', null, 'There is no score in this archive.');
}

function whole(parts: readonly Uint8Array[]): string {
  const all = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    all.set(p, at);
    at += p.length;
  }
  return strFromU8(all);
}
