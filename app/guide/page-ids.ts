/** The pages of docs/guide, in the order of its README; the book that is made of them has no other (book.spec.ts). */
export const GUIDE_PAGES = [
  'first-fill',
  'listen',
  'ribbon-and-recipe',
  'what-you-can-say',
  'asking',
  'stickings-and-kit',
  'drill',
  'today-and-log',
  'shelf',
  'map',
  'shows',
  'play',
  'files-and-devices',
  'teaching',
  'when-something-is-wrong',
] as const;
export type GuidePageId = (typeof GUIDE_PAGES)[number];

/** Where the book is open: a page, and the section that is to be in sight; the page from its top where it is empty. */
export interface GuidePlace {
  readonly page: GuidePageId;
  readonly section: string;
}

/** The place that a link inside the book leads to (`#guide/drill/try-it`); nothing where it leads elsewhere. */
export function placeOfLink(href: string): GuidePlace | null {
  const [, id, section] = /^#guide\/([a-z-]+)(?:\/([a-z0-9-]+))?$/.exec(href) ?? [];
  const page = GUIDE_PAGES.find((p) => p === id);
  return page ? { page, section: section ?? '' } : null;
}
