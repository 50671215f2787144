import { mapOf, type Mapped } from '@core/map';
import { patternOfText } from '@core/pattern';
import { RUDIMENTS } from '@core/rudiments';
import { TRAITS, traitsOf } from '@core/shelf';
import { parseStrokeText } from '@core/stroke';
import { line, median } from './measure';

const patterns = RUDIMENTS.map((r) => {
  const read = parseStrokeText(r.text);
  return patternOfText(read.ok ? read.value : [], r.meter, r.grid);
});
const traits = patterns.map(traitsOf);
const [usual] = traits;
if (!usual) throw new Error('there are no rudiments');
const phrases = Array.from({ length: 10_000 }, (_, i): Mapped => ({
  id: String(i),
  name: `Phrase ${i}`,
  traits: traits[i % traits.length] ?? usual,
  share: i % 3 === 0 ? null : (i % 97) / 97,
  last: i % 5 === 0 ? null : i % 300,
}));

/** The plain way: for every square all phrases are gone through. */
function plain(): number {
  const words = (t: (typeof TRAITS)[number]): readonly string[] => [...new Set(phrases.map((p) => p.traits[t]))];
  let many = 0;
  for (const r of words('grid'))
    for (const c of words('sticking'))
      many += phrases.filter((p) => p.traits.grid === r && p.traits.sticking === c).length;
  return many;
}

console.log(`\nmap: the traits of a phrase ${(median(() => patterns.map(traitsOf)) / patterns.length).toFixed(0)} µs`);
console.log(
  line('map: 10,000 phrases by two traits', () => mapOf(phrases, 'grid', 'sticking'), 'square by square', plain),
);
