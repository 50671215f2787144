import type { GuidePageId } from './page-ids';

/** What a word of ours means, and where the guide says more. */
interface Meaning {
  readonly says: string;
  readonly page: GuidePageId;
  readonly section: string;
}

/** The words of ours that a drummer does not bring along. */
export const TERMS = {
  ready: {
    says: 'The tempo you play clean 4 times in 5 today. It comes from your own tries.',
    page: 'drill',
    section: 'ready-and-chance',
  },
  ceiling: {
    says: 'The fastest tempo your limbs allow on this kit, by your limb test and your clean tries.',
    page: 'stickings-and-kit',
    section: 'the-ceiling',
  },
  chance: {
    says: 'How likely your next try at this tempo is clean.',
    page: 'drill',
    section: 'ready-and-chance',
  },
  rung: {
    says: 'One tempo of the ladder. Clean goes up a rung; two messy tries in a row go one down.',
    page: 'drill',
    section: 'stages-and-ladder',
  },
  ladder: {
    says: 'The tempos you drill, one after another, up to the goal.',
    page: 'drill',
    section: 'stages-and-ladder',
  },
  trail: {
    says: 'The recipe step by step: comma goes a step back, full stop a step on.',
    page: 'ribbon-and-recipe',
    section: 'the-recipe',
  },
  hold: {
    says: 'How much has to be clean before you go up: loops, bars or minutes.',
    page: 'drill',
    section: 'stages-and-ladder',
  },
  stage: {
    says: 'What you drill first, next and last: a part of the phrase, or less of it.',
    page: 'drill',
    section: 'stages-and-ladder',
  },
  cell: {
    says: 'The short figure that repeats. A bracket under the ribbon shows each repeat.',
    page: 'ribbon-and-recipe',
    section: 'reading-the-ribbon',
  },
  sums: {
    says: 'How the repeats of the figure add up to the bars, and where the last stroke lands.',
    page: 'ribbon-and-recipe',
    section: 'the-sums',
  },
  style: {
    says: 'A way to find a sticking: alternating, doubles, lead hand, paradiddle-like, time hand.',
    page: 'stickings-and-kit',
    section: 'stickings',
  },
  pin: {
    says: 'Fixes a stroke to a hand. Every sticking below keeps it.',
    page: 'stickings-and-kit',
    section: 'stickings',
  },
  band: {
    says: 'The range your ready tempo is in, 4 times in 5.',
    page: 'today-and-log',
    section: 'the-log',
  },
  refresh: {
    says: 'A phrase you can play, before it fades.',
    page: 'today-and-log',
    section: 'today',
  },
  faster: {
    says: 'A step towards a goal: a little above what you are ready for.',
    page: 'today-and-log',
    section: 'today',
  },
  fix: {
    says: 'What went wrong in your last tries.',
    page: 'today-and-log',
    section: 'today',
  },
  recipe: {
    says: 'How the phrase is made, change by change. Switch one off and the rest follows.',
    page: 'ribbon-and-recipe',
    section: 'the-recipe',
  },
} as const satisfies Record<string, Meaning>;
export type Term = keyof typeof TERMS;

export const meaningOf = (term: Term): Meaning => TERMS[term];
