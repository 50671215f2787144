/** Fonts that no style sheet declares: the engraver’s, by where they lie. */
const OURS: Readonly<Record<string, string>> = {
  Bravura: 'fonts/bravura.woff2',
  Academico: 'fonts/academico.woff2',
};

interface Face {
  readonly family: string;
  readonly url: string;
  /** The letters it has, as a range of CSS; absent for all. */
  readonly range: string | null;
}

/**
 * Puts the fonts that the letters of a drawing need into it, so that it looks the same where they are not there. A font
 * that cannot be fetched is left out: the drawing is saved all the same.
 */
export async function putFonts(svg: SVGSVGElement, page: Document): Promise<void> {
  const used = new Map<string, Set<number>>();
  for (const text of svg.querySelectorAll<SVGElement>('text')) {
    const own = text.style.fontFamily || text.getAttribute('font-family') || '';
    for (const name of own.split(',').map((f) => f.trim().replace(/^["']|["']$/g, ''))) {
      const letters = used.get(name) ?? new Set<number>();
      for (const letter of text.textContent) letters.add(letter.codePointAt(0) ?? 32);
      used.set(name, letters);
    }
  }
  const faces = [...used].flatMap(([family, letters]) =>
    facesOf(family, page).filter((f) => f.range === null || [...letters].some((l) => isIn(l, f.range ?? ''))),
  );
  const rules = (await Promise.all(faces.map(ruleOf))).filter((r) => r !== '');
  if (rules.length === 0) return;
  const style = page.createElementNS('http://www.w3.org/2000/svg', 'style');
  style.textContent = rules.join('');
  svg.prepend(style);
}

function facesOf(family: string, page: Document): readonly Face[] {
  const ours = OURS[family];
  if (ours !== undefined) return [{ family, url: new URL(ours, page.baseURI).href, range: null }];
  return [...page.styleSheets].flatMap((sheet) => {
    let rules: readonly CSSRule[];
    try {
      rules = [...sheet.cssRules];
    } catch {
      return [];
    }
    return rules.flatMap((rule): Face[] => {
      if (!(rule instanceof CSSFontFaceRule)) return [];
      const name = rule.style.getPropertyValue('font-family').replace(/^["']|["']$/g, '');
      const src = /url\(["']?([^"')]+)["']?\)/.exec(rule.style.getPropertyValue('src'))?.[1];
      if (name !== family || src === undefined) return [];
      const range = rule.style.getPropertyValue('unicode-range');
      return [{ family, url: new URL(src, sheet.href ?? page.baseURI).href, range: range === '' ? null : range }];
    });
  });
}

/**
 * Whether a letter is in a range of CSS.
 * @example
 * isIn(65, 'U+0000-00FF, U+0131') // => true
 */
export function isIn(letter: number, range: string): boolean {
  return range.split(',').some((part) => {
    const found = /U\+([0-9a-f?]+)(?:-([0-9a-f]+))?/i.exec(part);
    if (!found?.[1]) return false;
    const from = parseInt(found[1].replaceAll('?', '0'), 16);
    const to = parseInt(found[2] ?? found[1].replaceAll('?', 'f'), 16);
    return letter >= from && letter <= to;
  });
}

async function ruleOf({ family, url }: Face): Promise<string> {
  try {
    const bytes = new Uint8Array(await (await fetch(url)).arrayBuffer());
    let raw = '';
    for (let i = 0; i < bytes.length; i += 8192) raw += String.fromCharCode(...bytes.subarray(i, i + 8192));
    return `@font-face{font-family:"${family}";font-weight:100 900;src:url(data:font/woff2;base64,${btoa(raw)}) format("woff2")}`;
  } catch {
    return '';
  }
}
