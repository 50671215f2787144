import MiniSearch from 'minisearch';
import type { GuidePage } from './generated/book';
import { GUIDE_PAGES, type GuidePlace } from './page-ids';

/** A section that answers what was asked for. */
export interface Found extends GuidePlace {
  readonly pageTitle: string;
  /** Empty for what stands before the first heading. */
  readonly title: string;
  /** The words round the first that was found. */
  readonly words: string;
}

/** A word that is found nowhere may have so much of it wrong. */
const SLIP = 0.25;
/** So many answers are shown. */
const MOST = 8;
/** So many letters are shown of what was found, and so many of them before it. */
const SHOWN = 90;
const BEFORE = 30;

/** A search over the sections of the book: words, their beginnings; where nothing is found, slips of the finger. */
export function searchOf(pages: readonly GuidePage[]): (asked: string) => readonly Found[] {
  const sections = pages.flatMap((page) => {
    const id = GUIDE_PAGES.find((p) => p === page.id);
    return id ? page.sections.map((s) => ({ ...s, page: id, pageTitle: page.title })) : [];
  });
  const index = new MiniSearch<{ key: number; title: string; pageTitle: string; text: string }>({
    idField: 'key',
    fields: ['title', 'pageTitle', 'text'],
    searchOptions: {
      boost: { title: 4, pageTitle: 2 },
      prefix: true,
      combineWith: 'AND',
    },
  });
  index.addAll(sections.map((s, key) => ({ key, title: s.title, pageTitle: s.pageTitle, text: s.text })));
  const found = (asked: string): ReturnType<typeof index.search> => {
    const exact = index.search(asked);
    // A slip of the finger is looked for only where nothing is written so: “swing” is not “sing”.
    return exact.length > 0 ? exact : index.search(asked, { fuzzy: SLIP });
  };
  return (asked) =>
    found(asked)
      .flatMap(({ id, terms }) => {
        const s = sections[Number(id)];
        return s
          ? [{ page: s.page, section: s.id, pageTitle: s.pageTitle, title: s.title, words: round(s.text, terms) }]
          : [];
      })
      .slice(0, MOST);
}

/** Where a word begins with this. */
const beginsWith = (term: string): RegExp => new RegExp(`(?<![\\p{L}\\d])${term.replace(/\W/gu, '.')}`, 'u');

function round(text: string, terms: readonly string[]): string {
  const places = terms.map((t) => text.toLowerCase().search(beginsWith(t))).filter((i) => i >= 0);
  const at = Math.min(...places, text.length);
  const from = at === text.length || at <= BEFORE ? 0 : text.indexOf(' ', at - BEFORE) + 1;
  const words = text.slice(from, from + SHOWN);
  return `${from > 0 ? '… ' : ''}${words}${from + SHOWN < text.length ? ' …' : ''}`;
}
