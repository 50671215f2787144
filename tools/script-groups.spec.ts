import fc from 'fast-check';
import { scriptGroups, withImports, WORTH_A_FILE, type Script, type Starts } from './script-groups';

const PLACES = ['p0', 'p1', 'p2', 'p3', 'p4', 'p5'];
const starts: Starts = { first: 'first', framework: 'angular', shell: 'shell', checks: ['checks'], places: PLACES };

/** Builds of any shape without circles: each script imports some of those after it. */
const builds = fc
  .record({
    sizes: fc.array(fc.constantFrom(1, 1, 1, WORTH_A_FILE), { minLength: 12, maxLength: 30 }),
    picks: fc.array(fc.tuple(fc.nat(29), fc.nat(29)), { minLength: 20, maxLength: 60 }),
    heads: fc.array(fc.array(fc.nat(29), { minLength: 1, maxLength: 3 }), { minLength: 10, maxLength: 10 }),
  })
  .map(({ sizes, picks, heads }) => {
    const name = (i: number): string => `m${i}`;
    const scripts = new Map<string, Script>();
    const within = (list: readonly number[]): string[] => list.filter((i) => i < sizes.length).map(name);
    [...PLACES, 'first', 'angular', 'shell', 'checks'].forEach((head, i) =>
      scripts.set(head, { size: 10, imports: within((heads[i] ?? []).slice(0, i < PLACES.length ? 5 : 1)) }),
    );
    sizes.forEach((size, i) =>
      scripts.set(name(i), {
        size,
        imports: within(picks.filter(([from, to]) => from === i && to > i).map(([, to]) => to)),
      }),
    );
    return scripts;
  });

/** The file a script ends up in: its group, or one of its own. */
const fileOf = (groups: ReadonlyMap<string, string>, name: string): string => groups.get(name) ?? `own ${name}`;

describe('the scripts that are merged into one file', () => {
  it('never import each other in a circle', () =>
    fc.assert(
      fc.property(builds, (scripts) => {
        const groups = scriptGroups(scripts, starts);
        // Files that import nothing which is still there are taken away, until none is left or none can be.
        let edges = [...scripts].flatMap(([name, { imports }]) =>
          imports.map((to) => [fileOf(groups, name), fileOf(groups, to)] as const).filter(([a, b]) => a !== b),
        );
        for (let before = -1; before !== edges.length;) {
          before = edges.length;
          const importing = new Set(edges.map(([a]) => a));
          edges = edges.filter(([, b]) => importing.has(b));
        }
        expect(edges).toEqual([]);
      }),
      { numRuns: 3000 },
    ));

  it('bring a place nothing that only another place needs', () =>
    fc.assert(
      fc.property(builds, (scripts) => {
        const groups = scriptGroups(scripts, starts);
        const common = withImports(scripts, ['first', 'angular', 'shell', 'checks']);
        for (const place of PLACES) {
          const alone = [...withImports(scripts, [place])].filter(
            (n) => !common.has(n) && PLACES.every((other) => other === place || !withImports(scripts, [other]).has(n)),
          );
          for (const name of alone) expect(groups.has(name)).toBe(false);
        }
      }),
    ));

  it('are few: what is small and shared by sets of about one size lies together, what is big by itself', () => {
    const scripts = new Map<string, Script>(
      Object.entries({
        first: { size: 1, imports: [] },
        angular: { size: 1, imports: ['rx'] },
        rx: { size: 1, imports: [] },
        shell: { size: 1, imports: ['angular', 'frame'] },
        frame: { size: 1, imports: ['rx'] },
        checks: { size: 1, imports: ['rows', 'all'] },
        rows: { size: 1, imports: [] },
        p0: { size: 1, imports: ['all', 'a', 'big', 'mine', 'frame'] },
        p1: { size: 1, imports: ['all', 'a', 'b', 'c'] },
        p2: { size: 1, imports: ['all', 'b', 'c', 'big'] },
        p3: { size: 1, imports: ['all', 'c'] },
        all: { size: 1, imports: ['rx'] },
        a: { size: 1, imports: [] },
        b: { size: 1, imports: ['c'] },
        c: { size: 1, imports: [] },
        big: { size: WORTH_A_FILE, imports: ['c'] },
        mine: { size: 1, imports: [] },
      }),
    );
    expect(Object.fromEntries(scriptGroups(scripts, { ...starts, places: PLACES.slice(0, 4) }))).toEqual({
      angular: 'framework',
      rx: 'framework',
      shell: 'shell',
      frame: 'shell',
      checks: 'checks',
      rows: 'checks',
      all: 'places',
      a: 'shared by 2 or 3',
      b: 'shared by 2 or 3',
      c: 'places',
      big: 'p0 p2',
    });
  });
});
