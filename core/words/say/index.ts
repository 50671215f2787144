export { readChoice, type Choice } from './choice';
export { HINTS } from './hints';
export { wordsPage } from './page';
export type { Order } from './playing';
export { endingsOf, readLine, type Blame, type Meant, type Reading } from './read';
