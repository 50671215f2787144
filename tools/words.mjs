// Scores the sentences of core/testing/words.jsonl, or of a file that is named, and prints each that is not right.
import { readFileSync } from 'node:fs';
import adapter, { bundled } from './words-adapter.mjs';

const file = process.argv[2] ?? 'core/testing/words.jsonl';
const { scoreOf } = await bundled(`export { scoreOf } from './core/testing/words-corpus';`);
const read = adapter();
const sentences = readFileSync(file, 'utf8')
  .trim()
  .split('\n')
  .map((line) => JSON.parse(line));
const scored = sentences.map((s) => ({ ...s, score: scoreOf(s, read) }));
const many = (score) => scored.filter((s) => s.score === score).length;
for (const s of scored)
  if (s.score !== 'right') console.log(`${s.score.padEnd(7)} ${s.id} ${s.kind}: “${s.say}” on ${s.base.text}`);
console.log(`${many('right')} of ${scored.length} right, ${many('missed')} missed, ${many('wrong')} wrong`);
process.exit(many('right') === scored.length ? 0 : 1);
