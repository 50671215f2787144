import { SaxesParser } from 'saxes';
import { readFail, readOk, type Read } from '../../base';

/** An element of a file as it was read. */
export interface Xml {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: Xml[];
  text: string;
  readonly line: number;
}

export type XmlCode = 'too-large' | 'not-xml';

/** Bounds of what is read. */
export const XML_LIMITS = Object.freeze({
  chars: 20_000_000,
  elements: 500_000,
  depth: 40,
  attributes: 32,
  text: 200_000,
});

class Stop extends Error {}

/**
 * A strict reader: well-formed XML only, no entities but XML’s own five, no declarations of the file’s own (a public
 * one is named, never fetched), bounded in every direction.
 */
export function readXml(source: string, max = XML_LIMITS): Read<Xml, XmlCode> {
  if (source.length > max.chars) return readFail('too-large', null, 'This file is too large for a score.');
  const p = new SaxesParser({ position: true });
  const stop = (what: string): never => {
    throw new Stop(`Line ${p.line}: ${what}`);
  };
  const top: Xml = { name: '', attributes: {}, children: [], text: '', line: 0 };
  const open: Xml[] = [top];
  const here = (): Xml => open.at(-1) ?? top;
  let [elements, attributes] = [0, 0];
  p.on('error', (e) => {
    throw new Stop(e.message.replace(/^(\d+):(\d+): /, 'Line $1, column $2: '));
  });
  p.on('doctype', (d) => {
    if (d.includes('[')) stop('it declares entities of its own, which are not read.');
  });
  p.on('opentagstart', () => {
    attributes = 0;
  });
  p.on('attribute', () => {
    if (++attributes > max.attributes) stop('an element has too many attributes.');
  });
  p.on('opentag', (t) => {
    if (++elements > max.elements) stop(`it has more than ${max.elements} elements.`);
    if (open.length > max.depth) stop('its elements are nested too deep.');
    const own = Object.assign(Object.create(null), t.attributes) as Record<string, string>;
    const e: Xml = { name: t.name, attributes: own, children: [], text: '', line: p.line };
    here().children.push(e);
    open.push(e);
  });
  const text = (s: string): void => {
    if (here().text.length + s.length > max.text) stop('a text in it is too long.');
    here().text += s;
  };
  p.on('text', text);
  p.on('cdata', text);
  p.on('closetag', () => {
    open.pop();
  });
  try {
    for (let i = 0; i < source.length; i += 65_536) p.write(source.slice(i, i + 65_536));
    p.close();
  } catch (error) {
    const words = error instanceof Error ? error.message : String(error);
    return readFail('not-xml', { path: `line ${p.line}` }, `This file cannot be read as a score. ${words}`);
  }
  const [root] = top.children;
  return root ? readOk(root) : readFail('not-xml', null, 'This file is empty.');
}

/** The first child of a name; null where there is none. */
export function child(e: Xml | null, name: string): Xml | null {
  return e?.children.find((c) => c.name === name) ?? null;
}

/** The children of a name. */
export function all(e: Xml | null, name: string): readonly Xml[] {
  return e?.children.filter((c) => c.name === name) ?? [];
}

/** The text of the first child of a name, without space around; null where there is none. */
export function textOf(e: Xml | null, name: string): string | null {
  return child(e, name)?.text.trim() ?? null;
}

/** The number the first child of a name holds; null where there is none, or it is no number. */
export function numberOf(e: Xml | null, name: string): number | null {
  const text = textOf(e, name);
  const n = text === null || text === '' ? NaN : Number(text);
  return Number.isFinite(n) ? n : null;
}

const NOT_XML = /[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu;
const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

function escaped(s: string): string {
  return s.replace(NOT_XML, '').replace(/[&<>"\n\t\r]/g, (c) => SIGNS[c] ?? `&#${c.charCodeAt(0)};`);
}

/** An element that is written. */
export class XmlElement {
  constructor(readonly text: string) {}
}
export type Child = XmlElement | string | number | null | false | readonly Child[];

/**
 * An element as text. Children that are null or false are left out, so that conditions read in place and the order of
 * the schema is the order in the code.
 * @example
 * el('words', { placement: 'above' }, 'a < b').text // => '<words placement="above">a &lt; b</words>'
 */
export function el(
  name: string,
  attributes: Readonly<Record<string, string | number | null>> = {},
  ...children: readonly Child[]
): XmlElement {
  const inside = (c: Child): string => {
    if (c === null || c === false) return '';
    if (c instanceof XmlElement) return c.text;
    return typeof c === 'object' ? c.map(inside).join('') : escaped(String(c));
  };
  const own = Object.entries(attributes)
    .map(([k, v]) => (v === null ? '' : ` ${k}="${escaped(String(v))}"`))
    .join('');
  const body = children.map(inside).join('');
  return new XmlElement(body ? `<${name}${own}>${body}</${name}>` : `<${name}${own}/>`);
}
