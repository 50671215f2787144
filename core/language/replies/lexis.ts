import { PICK_WORDS } from '../grammar/pick';
import { SHARED_WORDS } from '../grammar/slots';
import { playingWords } from '../grammar/playing';
import type { Rule } from '../rules/rule';
import { ADDED_RULES } from '../rules/added';
import { STROKE_RULES } from '../rules/strokes';
import { VOICE_RULES } from '../rules/voices';
import { FILL_RULES } from '../rules/fill';
import { JOIN_RULES } from '../rules/join';
import { KIT_RULES } from '../rules/kit';
import { SHIFT_RULES } from '../rules/shift';
import { ROLE_WORDS } from '../frames/roles';
import { LIMB_TERMS, LONG_NAMES, VOICE_TERMS } from '../lexicon/terms';
import { VERB_WORDS } from '../lexicon/verbs';
import type { Lexis } from '../lexicon/tokens';

/** Every rule there is. */
export const RULES: readonly Rule[] = [
  ...STROKE_RULES,
  ...VOICE_RULES,
  ...ADDED_RULES,
  ...FILL_RULES,
  ...SHIFT_RULES,
  ...KIT_RULES,
  ...JOIN_RULES,
];

/** Words between the parts of a line. */
export const JOINTS = new Set([
  ',',
  ';',
  ':',
  'then',
  'and',
  'next',
  'finally',
  'also',
  'while',
  'first',
  'now',
  '.',
  'but',
  'whereas',
  'meanwhile',
  'afterwards',
]);
/** Words that ask nicely and mean nothing. */
export const POLITE = new Set(['please', 'now', 'and', 'then', 'also', 'so', 'ok', 'okay']);

let known: ReadonlySet<string> | null = null;

/** Every word that is known, of the rules, the terms and the player: gathered when the first line is read. */
export const LEXIS: Lexis = {
  get words() {
    return (known ??= new Set([
      ...RULES.flatMap((r) => r.say.flatMap((t) => t.words())),
      ...PICK_WORDS,
      ...SHARED_WORDS,
      ...playingWords(),
      ...VERB_WORDS,
      ...ROLE_WORDS,
      ...[...VOICE_TERMS.keys(), ...LIMB_TERMS.keys()].filter((w) => !w.includes(' ')),
      // Several of a piece.
      ...['crashes', 'splashes', 'chinas', 'rides', 'bells', 'cymbals', 'toms', 'snares'],
      ...LONG_NAMES.map((n) => n.as),
      ...JOINTS,
      ...POLITE,
      'some',
    ]));
  },
  names: LONG_NAMES,
};
