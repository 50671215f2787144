import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { anyRecipe } from '../../testing/arbitraries';
import { scoreOf, type Answer, type Sentence } from '../../testing/words-corpus';
import { OWN_SENTENCES } from '../../testing/words-own';
import { GRID, parseGrid } from '../../time';
import { voicedText, type Pattern } from '../../pattern';
import { build, type Build, type PlainRecipe } from '../../recipe';
import { LEXIS, RULES } from './lexis';
import { SLOTS } from '../grammar/slots';
import { LONG_NAMES } from '../lexicon/terms';
import { tokensOf } from '../lexicon/tokens';
import { endingsOf, HINTS, phrasesIn, readChoice, readLine, type LetteredPhrase, type ShelfPhrase } from '..';

const on = (base: string): Build => {
  const [text = '', meter = '4/4', grid = '16ths'] = base.split(' ; ');
  return build({ source: { kind: 'typed', text, meter, grid: parseGrid(grid) ?? 1260 }, moves: [] });
};
const FOUR = 'R L R R L R L L R L R R L R L L ; 4/4 ; 16ths';
const shown = (p: Pattern): string => {
  const v = voicedText(p);
  return `${p.start ? `@${p.start} ` : ''}${v?.text ?? ''} on ${v?.on ?? ''}`;
};
const answer = (say: string, built: Build): Answer => {
  const r = readLine(say, built);
  switch (r.kind) {
    case 'meant':
      return { offers: r.all, blame: null };
    case 'playing':
      return { offers: [], blame: r.words };
    case 'not':
      return { offers: [], blame: r.diagnostics.map((b) => b.words).join(' ') };
  }
};
const said = (words: string, base = FOUR): string[] => {
  const r = readLine(words, on(base));
  return r.kind === 'meant' ? r.all.map((m) => m.words) : [];
};
describe('a part, a line, versions', () => {
  const made = (words: string, base: string): string[] => {
    const r = readLine(words, on(base), { isOnePedal: true });
    return r.kind === 'meant' ? r.all.map((m) => shown(m.pattern)) : [r.kind];
  };
  it.each([
    ['bar 2 on its own', '(R L)x8 (K l)x8 ; 4/4 ; 16ths', '(K l)x8'],
    ['beat 3 as a phrase', 'R l l r L l l r K L L R R l l r ; 4/4 ; 16ths', 'K L L R'],
    ['only the second half', '(R L)x4 (K l)x4 ; 4/4 ; 16ths', '(K l)x4'],
    ['make a lick of bar 2', '(R L)x8 (K l)x8 ; 4/4 ; 16ths', '(K l)x8'],
    ['R L L round the kick', 'K - - K - - K - ; 4/4 ; 16ths', 'K R L K L R K L'],
    ['fill round the kick with R R L', 'K - - K - - K - ; 4/4 ; 16ths', 'K R R K L R K R'],
    ['doubles round the kicks', 'K - - K - - K - ; 4/4 ; 16ths', 'K R R K L L K R'],
  ])('“%s” on %s', (words, base, text) => {
    const [, meter = '4/4', grid = '16ths'] = base.split(' ; ');
    expect(made(words, base)).toEqual([shown(on(`${text} ; ${meter} ; ${grid}`).pattern)]);
  });
  it('where hands are not said, each usual way is offered', () =>
    expect(made('hands round the kick', 'K - - K - - K - ; 4/4 ; 16ths')).toHaveLength(3));
  it('a way over the kit is none round a line', () =>
    expect(said('move it round the kit').every((w) => w.startsWith('Move '))).toBe(true));
  it('a second pedal is asked about only where there may be one', () => {
    const words = (isOnePedal: boolean): readonly string[] => {
      const r = readLine('left foot on 2 and 4', on(FOUR), { isOnePedal });
      return r.kind === 'meant' ? r.all.map((m) => m.words) : [];
    };
    expect(words(true)).toEqual([expect.stringMatching(/hi-hat foot/)]);
    expect(words(false).some((w) => w.includes('second kick'))).toBe(true);
    // Where a second pedal plays, it can be meant.
    const plays = readLine('left foot on 2 and 4', on('R j L j R j L j ; 4/4 ; eighths'), { isOnePedal: true });
    expect(plays.kind === 'meant' ? plays.all.length : 0).toBeGreaterThan(1);
  });
  const version = (letter: string, text: string): LetteredPhrase => ({
    letter,
    phrase: { id: letter, name: `Rope ${letter}`, recipe: on(text).recipe as PlainRecipe },
  });
  const versions = [version('A', '(R L)x8'), version('B', '(R[high tom] L)x8'), version('C', '(R L[floor tom])x8')];
  it('versions in any order, the one on the Bench where it stands or not', () => {
    const voices = (line: string, letter: string | null, base: string): string[] | string => {
      const r = readLine(line, on(base), { versions, letter });
      if (r.kind !== 'meant') return r.kind === 'not' ? r.diagnostics.map((d) => d.why).join() : r.kind;
      return r.all[0]!.pattern.strokes.filter((s) => s.at % 20160 === 0 || s.at % 20160 === 1260).map((s) => s.voice);
    };
    const [a, b, c] = [
      ['snare', 'snare'],
      ['high-tom', 'snare'],
      ['snare', 'floor-tom'],
    ] as const;
    expect(voices('A then C', 'A', '(R L)x8 ; 4/4 ; 16ths')).toEqual([...a, ...c]);
    expect(voices('a then c, then b', 'B', '(R[high tom] L)x8 ; 4/4 ; 16ths')).toEqual([...a, ...c, ...b]);
    expect(voices('C then A then C', null, '(K L)x8 ; 4/4 ; 16ths')).toEqual([...c, ...a, ...c]);
    expect(voices('A then D', 'A', '(R L)x8 ; 4/4 ; 16ths')).toMatch(/no version D/);
  });
});

const blamed = (words: string, base = FOUR): string[] => {
  const r = readLine(words, on(base));
  return r.kind === 'not' ? r.diagnostics.map((b) => `${words.slice(b.from, b.until)}: ${b.why}`) : [];
};

const TABLE = readFileSync('core/testing/words.jsonl', 'utf8')
  .trim()
  .split('\n')
  .map((line) => JSON.parse(line) as Sentence);

describe('a line of words', () => {
  it.each(TABLE.map((s): [string, Sentence] => [s.say, s]))('“%s” means exactly what the table says', (_, sentence) =>
    expect(scoreOf(sentence, answer)).toBe('right'),
  );
  it.each(OWN_SENTENCES.map(([base, say, ...meant]): [string, string, readonly string[]] => [say, base, meant]))(
    '“%s” on %s',
    (say, base, meant) => {
      const r = readLine(say, on(base));
      expect(r.kind === 'meant' ? r.all.map((m) => shown(m.pattern)) : []).toEqual(meant);
    },
  );
  it('the moves of a meaning, put behind the recipe, make the phrase that is shown', () => {
    for (const [base, say] of OWN_SENTENCES) {
      const built = on(base);
      const r = readLine(say, built);
      if (r.kind !== 'meant') continue;
      for (const m of r.all) {
        const moves = m.moves.map((move, i) => ({ ...move, id: `x${i}` }));
        expect(shown(build({ ...built.recipe, moves }).pattern)).toBe(shown(m.pattern));
      }
    }
  });
});

describe('every word counts', () => {
  it('one strange word in any sentence that is read, and nothing is offered', () => {
    for (const [base, say, ...meant] of OWN_SENTENCES) {
      if (meant.length === 0) continue;
      const words = say.split(' ');
      for (const at of [0, Math.floor(words.length / 2), words.length]) {
        const line = [...words.slice(0, at), 'quoxel', ...words.slice(at)].join(' ');
        const r = readLine(line, on(base));
        expect(r.kind).toBe('not');
        if (r.kind === 'not') expect(r.diagnostics.map((b) => line.slice(b.from, b.until))).toEqual(['quoxel']);
      }
    }
  });
  it('names the words that are strange, where they stand, and why what is understood cannot be met', () => {
    expect(blamed('accent the purple rights with feeling')).toEqual([
      'purple: “purple” is not known here.',
      'feeling: “feeling” is not known here.',
    ]);
    expect(blamed('accent 5')).toEqual(['5: There is no 5 here.']);
    expect(blamed('leave out the kicks')).toEqual(['the kicks: There are none here.']);
    expect(blamed('empty out bar 3')).toEqual(['bar 3: There is one bar.']);
  });
  it('what is said in part is not done in part', () => {
    expect(said('accent the rights, then empty bar 9')).toEqual([]);
    expect(said('ghost the lefts and send the kicks to the ride')).toEqual([]);
  });
});

describe('no word of a rule is dropped', () => {
  it('whatever a slot found is looked at by the meaning that takes the clause', () => {
    const left: string[] = [];
    const lines = [
      ...OWN_SENTENCES.map(([base, say]) => [base, say] as const),
      ...TABLE.map((t) => [FOUR, t.say] as const),
    ];
    for (const [base, say] of lines) {
      const built = on(base);
      const tokens = tokensOf(say, LEXIS);
      for (const r of RULES)
        for (const t of r.say)
          for (const m of t.fits(tokens, 0, SLOTS)) {
            if (m.end !== tokens.length) continue;
            const seen = new Set<PropertyKey>();
            const watched = new Proxy(m.values, {
              get: (values, key) => (seen.add(key), Reflect.get(values, key) as unknown),
              ownKeys: (values) => (Reflect.ownKeys(values).forEach((k) => seen.add(k)), Reflect.ownKeys(values)),
            });
            const meant = r.mean(watched, { pattern: built.pattern, built, them: new Set() });
            if ('wrong' in meant) continue;
            for (const key of Object.keys(m.values)) if (!seen.has(key)) left.push(`${say}: ${key} in ${t.text}`);
          }
    }
    expect([...new Set(left)]).toEqual([]);
  });
  it('no rule writes as several words what is read as one', () => {
    const names = LONG_NAMES.map((n) => n.words.join(' '));
    const texts = RULES.flatMap((r) => r.say.map((t) => t.text));
    const never = names.filter((name) => texts.some((t) => new RegExp(`(^|[\\s([|])${name}($|[\\s)\\]|])`).test(t)));
    expect(never).toEqual([]);
  });
  it.each([
    ['fill 2 bars with the hands swapped', 'R l l K', ['Fill 2 bars, hands swapped on every repeat']],
    ['only lefts ghosted', 'R! L r L', ['Play ghosts as plain taps, then Ghost lefts']],
    ['fill a bar, close with 3 singles', 'R R L L K', []],
    [
      'down the toms, a beat on each',
      'R L R L R L R L',
      ['Move hand strokes round high tom, mid tom and floor tom, 4 at a time'],
    ],
    ['down the toms in ones', 'R L R L', ['Move hand strokes round high tom, mid tom and floor tom, 1 at a time']],
    [
      'land with a tom',
      'R L R L',
      ['high tom', 'mid tom', 'floor tom'].map((t) => `Land on the next 1 with the ${t} and the kick`),
    ],
    ['ride eighths with both hands', 'K - - -', []],
    [
      'right hand on the low tom follows the kick',
      'R K L K',
      ['mid tom', 'floor tom'].map((t) => `The right hand on the ${t} plays with kicks`),
    ],
    ['copy bars 1 and 2', '(R L)x16', []],
    ['fill 2 bars from 2:3', 'R l l K', []],
    ['beat 1: fR[ride] L! - K', 'R L R L', []],
    ['beat 1: fR L! - K', 'R L R L', ['1 with a flam; 1e accented; 1& left out; 1a to the kick']],
    ['accents to the crash, bass drum under them', 'R! l l R', ['Send accents to the right crash, kick under them']],
    ['half a bar later', 'R l l R l l K K R L R L L L K K', ['Displace it 8 slots later']],
    ['move it forward by 2', 'R l l R l l K K', ['Displace it 2 slots later', 'Displace it 2 slots earlier']],
    ['start on the ands', 'R l l K', []],
  ])('“%s” on %s', (words, text, meant) => expect(said(words, text)).toEqual(meant));
});

it('strokes that are written out keep their grace strokes', () => {
  const r = readLine('beat 1: fR L! - K', on('R L R L'));
  expect(r.kind === 'meant' ? r.all.map((m) => shown(m.pattern)) : []).toEqual(['fR L! - K on 16ths']);
});

describe('bad input', () => {
  it.each([
    ['nothing', ''],
    ['commas', ',,,,,,,,'],
    ['other letters', 'право на хай-хэт'],
    ['10,000 letters', 'accent the rights '.repeat(600)],
    ['a sentence of fifty parts', Array.from({ length: 50 }, () => 'accent the rights').join(', then ')],
    ['exceptions in exceptions', `ghost everything ${'except the rights '.repeat(12)}`],
    ['counts without end', `accent ${Array.from({ length: 60 }, (_, i) => (i % 4) + 1).join(', ')}`],
    ['and, and, and', 'and '.repeat(70)],
    ['brackets and signs', '{pick} [it] (a|b) <b>& " \' \\ / *'],
  ])('%s is answered, and never by a part of it', (_, line) => {
    const r = readLine(line, on(FOUR));
    if (r.kind === 'meant') expect(r.all.length).toBeLessThan(20);
    if (r.kind === 'not') for (const b of r.diagnostics) expect(b.why.length).toBeGreaterThan(0);
  });
  it('any words in any order on any phrase are read or refused, and what is offered builds', () => {
    const word = fc.constantFrom(...OWN_SENTENCES.flatMap(([, say]) => say.split(' ')));
    fc.assert(
      fc.property(anyRecipe, fc.array(word, { minLength: 1, maxLength: 9 }), (recipe, words) => {
        const built = build({ ...recipe, moves: recipe.moves.slice(0, 2) });
        const r = readLine(words.join(' '), built);
        if (r.kind !== 'meant') return;
        for (const m of r.all) {
          const whole = build({ ...built.recipe, moves: [...built.recipe.moves, ...m.moves] });
          expect(shown(whole.pattern)).toBe(shown(m.pattern));
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('what is said to the player', () => {
  const order = (words: string, base = FOUR): unknown => {
    const r = readLine(words, on(base), { tempo: 90 });
    return r.kind === 'playing' ? r.order : r.kind;
  };
  it.each([
    ['slower by 10', { kind: 'tempo', to: 80 }],
    ['10 faster', { kind: 'tempo', to: 100 }],
    ['play it at 120', { kind: 'tempo', to: 120 }],
    ['slower', { kind: 'tempo', to: 85 }],
    ['half speed', { kind: 'half', on: true }],
    ['only hands', { kind: 'only', limbs: ['R', 'L'] }],
    ['only the kick', { kind: 'only', limbs: ['K'] }],
    ['hear everything', { kind: 'hear-all' }],
    ['loop beat 3 and 4', { kind: 'loop', from: 10_080, until: 20_160, at: null }],
    ['loop beat 2', { kind: 'loop', from: 5040, until: 10_080, at: null }],
    ['loop bar 1', { kind: 'loop', from: 0, until: 20_160, at: null }],
    ['loop the second half', { kind: 'loop', from: 10_080, until: 20_160, at: null }],
    ['swing it', { kind: 'swing', on: 'eighths', ratio: 0.67 }],
    ['16ths swung 58', { kind: 'swing', on: '16ths', ratio: 0.58 }],
    ['straight', { kind: 'straight' }],
    ['undo that', { kind: 'undo' }],
    ['drill it', { kind: 'drill', part: null, at: null, to: null }],
    ['practise it at 70', { kind: 'drill', part: null, at: 70, to: null }],
    [
      'drill the second half at 70',
      { kind: 'drill', part: { from: 10080, until: 20160, said: 'the second half' }, at: 70, to: null },
    ],
    [
      'drill beat 3 and 4',
      { kind: 'drill', part: { from: 10080, until: 20160, said: 'beat 3 and 4' }, at: null, to: null },
    ],
    ['find linear fills', { kind: 'ask', question: 'linear fills' }],
    ['keep it as Rope two', { kind: 'keep', name: 'Rope two' }],
    ['louder click please', null],
    ['loop it', null],
  ])('“%s”', (words, wanted) => expect(order(words)).toEqual(wanted));
  it('is never a change of the phrase, and changes are never taken for it', () => {
    for (const words of ['play it at 3', 'loop beat 9', 'swing it 90', 'loop the purple ones'])
      expect([words, typeof (order(words) ?? '')]).toEqual([words, 'string']);
    for (const [base, say] of OWN_SENTENCES) expect([say, readLine(say, on(base)).kind]).not.toEqual([say, 'playing']);
  });
});

describe('phrases of the shelf', () => {
  const plain = (text: string, meter = '4/4'): PlainRecipe => ({
    source: { kind: 'typed', text, meter, grid: GRID.sixteenths },
    moves: [],
  });
  const shelf: readonly ShelfPhrase[] = [
    { id: 'rope', name: 'Cold rope', recipe: plain('(R K)x16') },
    { id: 'five', name: 'Glass over five', recipe: plain('R L R L R', '5/4') },
    { id: 'accent', name: 'Accent', recipe: plain('(L L)x8') },
    { id: 'joined', name: 'Two ropes', recipe: null },
  ];
  const base = on('(R L)x16 ; 4/4 ; 16ths');
  const read = (line: string) => readLine(line, base, { phrases: shelf });
  /** Limbs by bar, counted from the pattern by a plain loop. */
  const bars = (line: string): string[] => {
    const r = read(line);
    if (r.kind !== 'meant') return [r.kind === 'not' ? r.diagnostics.map((b) => b.why).join(' ') : r.kind];
    return r.all.map(({ pattern }) => {
      const out: string[] = [];
      for (const s of pattern.strokes) out[Math.floor(s.at / 20160)] = (out[Math.floor(s.at / 20160)] ?? '') + s.limb;
      return out.join(' ');
    });
  };
  const [own, rope] = ['RLRLRLRLRLRLRLRL', 'RKRKRKRKRKRKRKRK'];
  it.each([
    ['then cold rope', [own, own, rope, rope]],
    ['accent 1, then Cold rope', [own, own, rope, rope]],
    ['join Cold rope', [own, own, rope, rope]],
    ['followed by “Cold rope”', [own, own, rope, rope]],
    ['then bar 2 of cold rope', [own, own, rope]],
    ['keep bar 1, then join cold rope', [own, rope, rope]],
    ['only bar 2, then the first bar of cold rope', [own, rope]],
    ['then cold rop', [own, own, rope, rope]],
    ['join accent', [own, own, 'LLLLLLLLLLLLLLLL']],
  ])('“%s”', (line, want) => expect(bars(line)).toEqual([want.join(' ')]));
  it.each([
    ['then Glass over five', /5\/4/],
    ['then two ropes', /already joined from others/],
    ['then bar 3 of cold rope', /has 2 bars/],
    ['then warm rope', /is not known here/],
    ['cold rope', /is not known here/],
  ])('“%s” is refused, and why', (line, why) => expect(bars(line)[0]).toMatch(why));
  it('a name that could be said of strokes is none behind “then”', () => {
    const r = read('then accent 1');
    expect(r.kind === 'meant' && r.all.map((m) => m.words)).toEqual(['Accent all strokes on 1']);
  });
  it('what the card says is read back to the same phrase', () => {
    for (const line of ['then cold rope', 'then bar 2 of cold rope', 'keep bar 1, then bar 1 of cold rope']) {
      const r = read(line);
      const said = r.kind === 'meant' ? (r.all[0]?.words ?? '') : '';
      expect(said).toContain('“Cold rope”');
      expect([line, bars(said)]).toEqual([line, bars(line)]);
    }
  });
  it('it is opened, and the shelf is asked for its like', () => {
    expect(read('open cold rope')).toMatchObject({ order: { kind: 'open', id: 'rope' } });
    expect(read('like cold rope')).toMatchObject({ order: { kind: 'ask', question: 'like Cold rope' } });
  });
  it('only names that stand in a line are fetched', () => {
    expect(phrasesIn('bar 1, then cold rope', shelf).map((p) => p.id)).toEqual(['rope']);
    expect(phrasesIn('accent 1', shelf)).toEqual([]);
    expect(phrasesIn('then nothing of it', shelf)).toEqual([]);
  });
});

describe('what helps', () => {
  it('every hint is read', () => {
    const base = 'R! l l R L! r r L ; 4/4 ; 16ths';
    for (const hint of HINTS)
      expect([
        hint,
        readLine(hint, on(hint.startsWith('beat 4') || hint.includes('2 and 4') ? FOUR : base)).kind,
      ]).toEqual([hint, 'meant']);
  });
  it('a word begun is written to its end, a known one is left', () => {
    expect(endingsOf('rights to the flo').map((e) => e.line)).toEqual([
      'rights to the floor',
      'rights to the floor tom',
      'rights to the floor toms',
    ]);
    expect(endingsOf('rights to the ride')).toEqual([]);
    expect(endingsOf('')).toEqual([]);
  });
  it('a name of the shelf that was begun is written to its end where a phrase can be named', () => {
    const names = ['Cold rope', 'Cold rope 2', 'Rope and tide'];
    const lines = (text: string): string[] => endingsOf(text, names).map((e) => e.line);
    expect(lines('accent 2, then col')).toEqual(['accent 2, then Cold rope', 'accent 2, then Cold rope 2']);
    expect(lines('then Cold rope')).toEqual(['then Cold rope 2']);
    expect(lines('like rope a')).toEqual(['like Rope and tide']);
    expect(lines('cold')).toEqual([]);
  });
  it('the player’s own pieces are known by their names', () => {
    const own = [
      { name: 'Wash-board', voice: 'own-1' as const },
      { name: 'Tin', voice: 'own-2' as const },
    ];
    const voicesOf = (words: string): string[] => {
      const r = readLine(words, on('R L R L'), { own });
      return r.kind === 'meant' ? r.all.flatMap((m) => m.pattern.strokes.map((s) => s.voice)) : [];
    };
    expect(voicesOf('rights to the wash board, lefts to the tin')).toEqual(['own-1', 'own-2', 'own-1', 'own-2']);
    expect(blamed('rights to the wash board', 'R L R L')).toEqual(['wash board: “wash board” is not known here.']);
  });
  it('slips of the finger are read, but not where two words are as near', () => {
    expect(said('acent the rigths')).toEqual(['Accent rights']);
    expect(blamed('accent the bears')).not.toEqual([]);
    // An everyday word is meant as it is written.
    expect(blamed('accent the tight ones')).toEqual(['tight: “tight” is not known here.']);
    expect(blamed('crush on 1')).toEqual(['crush: “crush” is not known here.']);
  });
  it('choosing takes the same words as the box', () => {
    const p = on('R! l K R l l R! l ; 4/4 ; 16ths').pattern;
    const chosen = (words: string): string => {
      const c = readChoice(words, p);
      return c.ok ? JSON.stringify(c.select) : c.words;
    };
    expect(chosen('the right hand')).toBe('{"is":"limb","limbs":["R"]}');
    expect(chosen('my left')).toBe('{"is":"limb","limbs":["L"]}');
    expect(chosen('bass drum')).toBe('{"is":"limb","limbs":["K"]}');
    expect(chosen('bar 1: 2')).toBe(chosen('1:2'));
    expect(chosen('the last two')).toContain('"which":{"last":2}');
    expect(chosen('accents except the first')).toContain('"is":"but"');
    expect(chosen('every other right')).toMatch(/^This has 2 meanings/);
    expect(chosen('the floor toms')).toBe('There are none here.');
  });
});
