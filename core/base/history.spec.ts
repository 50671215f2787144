import fc from 'fast-check';
import { edited, historyOf, redone, undone, type History } from './history';

describe('history', () => {
  it('undo after an edit is the value before; redo is the edit', () => {
    fc.assert(
      fc.property(fc.array(fc.integer(), { minLength: 1, maxLength: 60 }), (values) => {
        const full = values.reduce<History<number>>((h, v) => edited(h, v), historyOf(-1));
        let h = full;
        for (let i = values.length - 1; i >= 0; i--) {
          h = undone(h);
          expect(h.now).toBe(i === 0 ? -1 : values[i - 1]);
        }
        expect(undone(h)).toBe(h);
        for (const v of values) {
          h = redone(h);
          expect(h.now).toBe(v);
        }
        expect(redone(h)).toBe(h);
      }),
    );
  });
  it('edits of one thing in a row are one step; another thing begins a new one', () => {
    const h = edited(edited(edited(historyOf(0), 1, 'tempo'), 2, 'tempo'), 3, 'text');
    expect(h.past).toEqual([0, 2]);
    expect(undone(h).now).toBe(2);
  });
  it('an edit after undo has no future', () => expect(edited(undone(edited(historyOf(0), 1)), 2).future).toEqual([]));
  it('an edit after undo of the same thing is a step of its own', () => {
    const h = undone(edited(edited(historyOf(0), 1, 'tempo'), 2, 'text'));
    expect(edited(h, 3, 'tempo').past).toEqual([0, 1]);
  });
});
