import type { Choice } from '../../widgets/choice';

/** The questions the Log answers. */
export const QUESTIONS = [
  'there',
  'breaks',
  'limbs',
  'practised',
  'load',
  'fails',
  'avoided',
  'used',
  'unused',
  'beside',
] as const;
export type Question = (typeof QUESTIONS)[number];

export const QUESTION_CHIPS: readonly Choice<Question>[] = [
  { value: 'there', words: 'Am I getting there?' },
  { value: 'breaks', words: 'Where do I miss?' },
  { value: 'limbs', words: 'Which limb lags?' },
  { value: 'fails', words: 'Why do rungs fail?' },
  { value: 'practised', words: 'What did I practise?' },
  { value: 'load', words: 'Is it too much?' },
  { value: 'avoided', words: 'What have I not played?' },
  { value: 'used', words: 'What do I use?' },
  { value: 'unused', words: 'What do I never use?' },
  { value: 'beside', words: 'What is not on the shelf?' },
];

/** Whether a question is about one phrase. */
export function isOfPhrase(question: Question): boolean {
  return question === 'there' || question === 'breaks' || question === 'limbs' || question === 'fails';
}

export function questionOf(text: string | undefined): Question {
  return QUESTIONS.find((q) => q === text) ?? 'there';
}

/** Whether a question is about free play. */
export function isOfUse(question: Question): boolean {
  return question === 'used' || question === 'unused' || question === 'beside';
}
