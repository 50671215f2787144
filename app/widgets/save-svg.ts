import { csvText } from '@core/formats/csv';
import { putFonts } from './svg-fonts';

/** Properties that make a drawing look as it does; what a class says is written into the file. */
const KEPT = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
] as const;

/**
 * An SVG on the page as text of its own: styles written into each element, so that it looks the same wherever it is
 * opened.
 */
export function svgText(svg: SVGSVGElement): string {
  return new XMLSerializer().serializeToString(alone(svg));
}

/** A copy of a drawing that carries its looks itself. */
function alone(svg: SVGSVGElement): SVGSVGElement {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const theirs = [...copy.querySelectorAll<SVGElement>('*')];
  [...svg.querySelectorAll<SVGElement>('*')].forEach((element, i) => {
    const style = getComputedStyle(element);
    const target = theirs[i];
    if (!target) return;
    for (const name of KEPT) {
      const value = style.getPropertyValue(name);
      if (value) target.style.setProperty(name, value);
    }
    target.removeAttribute('class');
  });
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  return copy;
}

/** Gives a drawing to the browser to save, with the fonts it needs. */
export async function saveSvg(svg: SVGSVGElement, name: string): Promise<void> {
  const copy = alone(svg);
  await putFonts(copy, svg.ownerDocument);
  saveText(new XMLSerializer().serializeToString(copy), name, 'image/svg+xml');
}

/** Gives a text to the browser to save under a name. */
export function saveText(text: string, name: string, type: string): void {
  saveBlob(new Blob([text], { type }), name);
}

/** Gives a table to the browser to save; its first letter tells spreadsheets that it is UTF-8. */
export function saveCsv(rows: Parameters<typeof csvText>[0], name: string): void {
  saveText(`\ufeff${csvText(rows)}`, name, 'text/csv');
}

/** Gives a file to the browser to save under a name. */
export function saveBlob(file: Blob, name: string): void {
  const url = URL.createObjectURL(file);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A name as a file may have it. */
export function fileName(name: string, ending: string): string {
  const plain = name
    .normalize('NFC')
    .replace(/[^\p{L}\p{N} _-]+/gu, '')
    .trim()
    .slice(0, 60);
  return `${plain === '' ? 'phrase' : plain}.${ending}`;
}
