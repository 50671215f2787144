export { folded } from './lexicon/folded';
export { readChoice, type ChosenStrokes } from './replies/choice';
export { HINTS } from './replies/hints';
export { wordsPage } from './replies/page';
export { SLOTS } from './grammar/slots';
export { Template, type SlotReader, type SlotReaders, type Values } from './lexicon/template';
export { LIMB_TERMS, LONG_NAMES, voiceTerm, type LimbTerm } from './lexicon/terms';
export { tokensOf, type Lexis, type Token } from './lexicon/tokens';
export { SHOWN, type Order, type Shown } from './grammar/playing';
export type { Near, Nearest } from './replies/nearest';
export {
  endingsOf,
  nearestTo,
  readLine,
  type Diagnostic,
  type Ending,
  type Meant,
  type LineReading,
} from './replies/read';
export { phrasesIn, type ShelfPhrase } from './lexicon/phrases';
