import fc from 'fast-check';
import { DEEPEST, isShallow } from './bounds';

/** How deep a value nests, told from its text: brackets that are open at once, outside of strings. */
function depthInText(value: unknown): number {
  let [depth, deepest] = [0, 0];
  for (const c of JSON.stringify(value).replace(/"(?:[^"\\]|\\.)*"/g, '""')) {
    if (c === '[' || c === '{') deepest = Math.max(deepest, ++depth);
    if (c === ']' || c === '}') depth--;
  }
  return deepest;
}

describe('nesting', () => {
  it('is as deep as the brackets of its text', () =>
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 6 }), fc.integer({ min: 0, max: 7 }), (value, most) => {
        expect(isShallow(value, most)).toBe(depthInText(value) <= most);
      }),
      { numRuns: 500 },
    ));
  it('is told of any depth, and of long rows of numbers without going through them', () => {
    const deep: unknown = JSON.parse(`${'['.repeat(5000)}${']'.repeat(5000)}`);
    expect([isShallow(deep), isShallow(deep, 5000), isShallow(deep, 4999)]).toEqual([false, true, false]);
    const circle: unknown[] = [];
    circle.push({ circle });
    expect(isShallow(circle)).toBe(false);
    expect(isShallow({ clip: new Float32Array(100) }, 2)).toBe(true);
    expect(isShallow({ clip: new Float32Array(100) }, 1)).toBe(false);
    expect(DEEPEST).toBeGreaterThan(2);
  });
});
