// Bundled into a page by `staff.spec.ts`: engraves phrases with the application's own code, and measures what was drawn
// by the ink of each sign. Nothing here knows how the engraving places things.
import fc from 'fast-check';
import { build } from '../core/recipe';
import { strokesOf, type Pattern } from '../core/pattern';
import { anyRecipe } from '../core/testing/arbitraries';
import { DEMO_PHRASES } from '../demo/phrases';
import { drawLines, loadMusicFonts } from '../app/drawings/staff/draw';
import { planStaff } from '../app/drawings/staff/plan';

interface Ink {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

export interface Measured {
  readonly name: string;
  readonly strokes: number;
  readonly letters: number;
  /** Two things that lie on each other, in words. */
  readonly collisions: readonly string[];
  readonly outside: readonly string[];
}

const ACCENT = '\uE4A0';
const ACCENT_BELOW = '\uE4A1';
const BRACKETS = ['\uE0F5', '\uE0F6'];

let pen: CanvasRenderingContext2D | null = null;

/** Where the ink of a text lies, by the font it is drawn in. */
function inkOf(text: SVGTextElement): Ink {
  pen ??= document.createElement('canvas').getContext('2d');
  const style = getComputedStyle(text);
  const context = pen;
  if (!context) throw new Error('no canvas');
  context.font = `${style.fontStyle} ${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
  const m = context.measureText(text.textContent ?? '');
  const x = Number(text.getAttribute('x'));
  const y = Number(text.getAttribute('y'));
  return {
    left: x - m.actualBoundingBoxLeft,
    right: x + m.actualBoundingBoxRight,
    top: y - m.actualBoundingBoxAscent,
    bottom: y + m.actualBoundingBoxDescent,
  };
}

const meets = (a: Ink, b: Ink, by = 0.4): boolean =>
  a.left < b.right - by && b.left < a.right - by && a.top < b.bottom - by && b.top < a.bottom - by;

/** The corners of a beam's lines: each is a sloping bar of four points. */
function beamsOf(svg: SVGSVGElement): { x1: number; x2: number; y1: number; y2: number; thick: number }[] {
  return [...svg.querySelectorAll<SVGPathElement>('.vf-beam path')].flatMap((path) => {
    const n = (path.getAttribute('d') ?? '').match(/-?\d+(\.\d+)?/g)?.map(Number) ?? [];
    const [xa = 0, ya = 0, , yb = 0, xc = 0, , , yd = 0] = n;
    // A stem is a line; a beam has a width and a thickness.
    return n.length >= 8 && Math.abs(xc - xa) > 2
      ? [{ x1: xa, x2: xc, y1: Math.min(ya, yb), y2: yd, thick: Math.abs(yb - ya) }]
      : [];
  });
}

function measure(name: string, phrase: Pattern, host: HTMLDivElement, width: number): Measured {
  const pattern = { ...phrase, strokes: strokesOf(phrase) };
  const options = { width, stickings: true, scale: 1 };
  const plan = planStaff(pattern, options);
  drawLines(host, plan, pattern, options);
  const svg = host.querySelector('svg');
  if (!svg) throw new Error('nothing drawn');
  const texts = [...svg.querySelectorAll('text')];
  const of = (glyphs: readonly string[]): Ink[] => texts.filter((t) => glyphs.includes(t.textContent ?? '')).map(inkOf);
  const letters = texts.filter((t) => /^[RLKJH]$/.test(t.textContent ?? ''));
  // Grace notes, which are smaller, may lean on the bracket before them.
  const heads = texts
    .filter((x) => /[\uE0A0-\uE0F4]/.test(x.textContent ?? '') && parseFloat(getComputedStyle(x).fontSize) > 30)
    .map(inkOf);
  const accents = of([ACCENT]);
  const brackets = of(BRACKETS);
  const collisions: string[] = [];
  const say = (what: string, ink: Ink): void =>
    void collisions.push(`${what} at ${Math.round(ink.left)}, ${Math.round(ink.top)}`);
  for (const a of accents)
    for (const b of beamsOf(svg)) {
      const x = (a.left + a.right) / 2;
      if (x < b.x1 - 1 || x > b.x2 + 1) continue;
      const y = b.y1 + ((b.y2 - b.y1) * (x - b.x1)) / (b.x2 - b.x1 || 1);
      if (a.bottom > y + 0.5 && a.top < y + b.thick - 0.5) say('accent on beam', a);
    }
  brackets.forEach((a, i) => {
    if (brackets.slice(i + 1).some((b) => meets(a, b, 4))) say('bracket on bracket', a);
    if (heads.some((h) => meets(a, h, 2.5))) say('bracket on head', a);
  });
  accents.forEach((a) => heads.some((h) => meets(a, h)) && say('accent on head', a));
  const inked = letters.map(inkOf);
  inked.forEach((a, i) => inked.slice(i + 1).some((b) => meets(a, b)) && say('letter on letter', a));
  inked.forEach(
    (a) => [...heads, ...accents, ...of([ACCENT_BELOW])].some((h) => meets(a, h)) && say('letter on note', a),
  );
  const box = svg.viewBox.baseVal;
  const [across, height] = [box.width || width, box.height || svg.height.baseVal.value];
  const all = texts.filter((t) => (t.textContent ?? '').trim() !== '').map(inkOf);
  return {
    name,
    strokes: pattern.strokes.length,
    letters: letters.length,
    collisions,
    outside: all
      .filter((i) => i.top < -0.5 || i.bottom > height + 0.5 || i.right > across + 1)
      .map((i) => `${Math.round(i.left)}, ${Math.round(i.top)} of ${Math.round(across)}, ${Math.round(height)}`),
  };
}

/** Phrases of the demo, and so many made at random: at most eight bars of them, as dense as they come. */
function phrases(random: number): { name: string; pattern: Pattern }[] {
  const demo = DEMO_PHRASES.map(({ name, source, moves }) => ({
    name,
    pattern: build({ source, moves: [...moves] }).pattern,
  }));
  const made = fc
    .sample(anyRecipe, { numRuns: random * 6, seed: 20261126 })
    .map((recipe, i) => ({ name: `random ${i}`, pattern: build(recipe).pattern }))
    .filter(({ pattern }) => pattern.strokes.length > 0 && pattern.strokes.length < 300);
  return [...demo, ...made.slice(0, random)];
}

export async function measureAll(random: number, width: number): Promise<Measured[]> {
  await loadMusicFonts(`${location.origin}/`);
  await document.fonts.load('7.5pt "Martian Mono Variable"');
  const host = document.createElement('div');
  document.body.append(host);
  return phrases(random).map(({ name, pattern }) => measure(name, pattern, host, width));
}

Object.assign(window, { measureAll });
