import fc from 'fast-check';
import { TestBed } from '@angular/core/testing';
import { build } from '@core/recipe';
import { typed } from '../../testing/fixtures';
import { ribbonLayout } from './layout';
import { USUAL_SCHOOLS } from '@core/time';
import { RibbonComponent } from './ribbon.component';
import { looksAlike } from './same';
import { smallBlocks, smallShapes } from './small';

const bars = (text: string) => build(typed(text)).pattern;

describe('rows that are drawn by themselves', () => {
  it('an edit in one bar leaves the other rows as they are drawn, also when strokes came before them', () => {
    const fixture = TestBed.createComponent(RibbonComponent);
    fixture.componentRef.setInput('apart', true);
    fixture.componentRef.setInput('width', 400);
    fixture.componentRef.setInput('pattern', bars('(R L R L)x4 (R - R L)x4 (R L K L)x4'));
    fixture.detectChanges();
    const before = fixture.componentInstance.rows();
    expect(before.length).toBeGreaterThan(1);
    fixture.componentRef.setInput('pattern', bars('(R! L R L)x4 (R - R L)x4 (R L K L)x4'));
    fixture.detectChanges();
    const after = fixture.componentInstance.rows();
    expect(after.map((r, i) => r === before[i])).toEqual([false, ...before.slice(1).map(() => true)]);
    // One stroke more in the first bar gives every later one another number, and the same look.
    fixture.componentRef.setInput('pattern', bars('(R! L R L)x3 R! L+K R L (R - R L)x4 (R L K L)x4'));
    fixture.detectChanges();
    expect(fixture.componentInstance.rows().map((r, i) => r === after[i])).toEqual([
      false,
      ...before.slice(1).map(() => true),
    ]);
    expect(fixture.componentInstance.layout().rows.at(-1)!.stems[0]!.index).toBe(before.at(-1)!.stems[0]!.index + 1);
  });
  it('one drawing by default, a drawing a row where it is edited', () => {
    const fixture = TestBed.createComponent(RibbonComponent);
    fixture.componentRef.setInput('width', 400);
    fixture.componentRef.setInput('pattern', bars('(R L R L)x12'));
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    expect(host.querySelectorAll('svg')).toHaveLength(1);
    fixture.componentRef.setInput('apart', true);
    fixture.detectChanges();
    expect(host.querySelectorAll('svg.row')).toHaveLength(fixture.componentInstance.rows().length);
    expect(host.querySelector('[role=img]')?.getAttribute('aria-label')).toBe(
      'Ribbon: 48 strokes on 16ths over 12 beats',
    );
  });
  it('looks are compared by all but the numbers of strokes', () => {
    fc.assert(
      fc.property(fc.json(), (text) => {
        const v = JSON.parse(text) as unknown;
        expect(looksAlike(v, JSON.parse(text))).toBe(true);
        expect(looksAlike({ index: 1, v }, { index: 2, v })).toBe(true);
        expect(looksAlike({ v }, { v, more: 1 })).toBe(false);
        expect(looksAlike([v], { 0: v, length: 1 })).toBe(false);
      }),
    );
    expect(looksAlike({ x: 1 }, { x: 2 })).toBe(false);
    expect(looksAlike({ x: 1 }, null)).toBe(false);
  });
});

describe('a small row', () => {
  it('has every stroke in few shapes: one for each look, one for the feet', () => {
    const row = ribbonLayout(bars('(R! l K fR z)x4'.replace('z', 'L')), {
      size: 'card',
      width: 300,
      schools: USUAL_SCHOOLS,
    }).rows[0]!;
    const shapes = smallShapes(row);
    const moves = (d: string): number => d.split('M').length - 1;
    // Twelve hands with four grace strokes, and a head for each hand.
    expect(shapes.reduce((n, s) => n + moves(s.stems), 0)).toBe(
      row.stems.length + row.stems.reduce((n, s) => n + s.graces.length, 0),
    );
    expect(shapes.reduce((n, s) => n + moves(s.heads), 0)).toBe(row.stems.length);
    expect(moves(smallBlocks(row))).toBe(row.blocks.length);
    expect(shapes.length).toBeLessThan(4);
  });
});
