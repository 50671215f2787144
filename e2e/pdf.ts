import { inflateSync } from 'node:zlib';

/** A page of a PDF as it is drawn: its paper and the box of all lines and areas on it, in points (1/72 inch). */
export interface PdfPage {
  readonly width: number;
  readonly height: number;
  readonly ink: { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number };
}

type Matrix = readonly [number, number, number, number, number, number];

const times = (a: Matrix, b: Matrix): Matrix => [
  a[0] * b[0] + a[1] * b[2],
  a[0] * b[1] + a[1] * b[3],
  a[2] * b[0] + a[3] * b[2],
  a[2] * b[1] + a[3] * b[3],
  a[4] * b[0] + a[5] * b[2] + b[4],
  a[4] * b[1] + a[5] * b[3] + b[5],
];

/** Where a content stream puts lines and areas: its paths that are filled or stroked, through the matrices it sets. */
function pointsOf(content: string): readonly (readonly [number, number])[] {
  const all: [number, number][] = [];
  const saved: Matrix[] = [];
  let now: Matrix = [1, 0, 0, 1, 0, 0];
  let path: [number, number][] = [];
  let args: number[] = [];
  const add = (x: number, y: number): void => {
    path.push([x * now[0] + y * now[2] + now[4], x * now[1] + y * now[3] + now[5]]);
  };
  for (const word of content.replace(/<[\da-fA-F]*>|\((?:\\.|[^\\)])*\)/g, ' ').split(/\s+/)) {
    const n = Number(word);
    if (word !== '' && Number.isFinite(n)) {
      args.push(n);
      continue;
    }
    if (word === 'q') saved.push(now);
    else if (word === 'Q') now = saved.pop() ?? now;
    else if (word === 'cm') now = times(args.slice(-6) as unknown as Matrix, now);
    else if (word === 're') {
      const [x, y, w, h] = args.slice(-4) as [number, number, number, number];
      add(x, y);
      add(x + w, y + h);
    } else if (/^[mlcvy]$/.test(word)) for (let i = 0; i + 1 < args.length; i += 2) add(args[i]!, args[i + 1]!);
    else if (/^[fFSsBb]\*?$/.test(word)) {
      all.push(...path);
      path = [];
    } else if (word === 'n') path = [];
    args = [];
  }
  return all;
}

/** Reads the pages of a PDF that the browser printed. White is ink too, so areas of the paper's size are left out. */
export function pagesOf(pdf: Buffer): readonly PdfPage[] {
  const text = pdf.toString('latin1');
  const objects = new Map([...text.matchAll(/(?:^|\n)(\d+) 0 obj\b([^]*?)endobj/g)].map((m) => [m[1]!, m[2]!]));
  const streamOf = (id: string): string => {
    const body = objects.get(id) ?? '';
    const raw = /stream\r?\n([^]*?)\r?\nendstream/.exec(body)?.[1] ?? '';
    return /FlateDecode/.test(body) ? inflateSync(Buffer.from(raw, 'latin1')).toString('latin1') : raw;
  };
  return [...objects.values()]
    .filter((body) => /\/Type\s*\/Page\b(?!s)/.test(body))
    .map((body) => {
      const box = /\/MediaBox\s*\[([^\]]*)\]/.exec(body)?.[1]?.trim().split(/\s+/).map(Number) ?? [];
      const [width, height] = [box[2] ?? 0, box[3] ?? 0];
      const contents = /\/Contents\s*(\[[^\]]*\]|\d+ 0 R)/.exec(body)?.[1] ?? '';
      const points = [...contents.matchAll(/(\d+) 0 R/g)].flatMap((m) => pointsOf(streamOf(m[1]!)));
      const on = points.filter(([x, y]) => x > 1 && x < width - 1 && y > 1 && y < height - 1);
      return {
        width,
        height,
        ink: {
          left: Math.min(...on.map(([x]) => x)),
          right: Math.max(...on.map(([x]) => x)),
          top: height - Math.max(...on.map(([, y]) => y)),
          bottom: height - Math.min(...on.map(([, y]) => y)),
        },
      };
    });
}
