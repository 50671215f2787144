import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { drillStep, newDrill } from '@core/drill';
import { build } from '@core/recipe';
import { typed } from '../testing/fixtures';
import { RibbonComponent } from '../drawings/ribbon/ribbon.component';
import { StairsComponent } from '../places/drill/stairs/stairs.component';
import { TempoFieldComponent } from './tempo-field.component';

describe('the tempo field', () => {
  function field(bpm: number) {
    const fixture = TestBed.createComponent(TempoFieldComponent);
    fixture.componentRef.setInput('bpm', bpm);
    const told: number[] = [];
    fixture.componentInstance.bpmChange.subscribe((v) => told.push(v));
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    const input = host.querySelector('input')!;
    const type = (text: string): void => {
      input.value = text;
      input.dispatchEvent(new Event('blur'));
      fixture.detectChanges();
    };
    return { input, told, type, host, fixture };
  }
  it.each([
    ['120', [120], '120', ''],
    ['1000', [400], '400', 'Tempos go from 20 to 400.'],
    ['0', [20], '20', 'Tempos go from 20 to 400.'],
    ['abc', [], '90', 'Type a tempo from 20 to 400.'],
    ['90', [], '90', ''],
  ])('“%s”', (text, told, shown, hint) => {
    const f = field(90);
    f.type(text);
    expect([f.told, f.input.value]).toEqual([told, shown]);
    expect(f.host.querySelector('.wrong')?.textContent ?? '').toContain(hint);
  });
  it('what is being typed stays when another tempo comes in meanwhile', () => {
    const f = field(90);
    f.input.value = '240';
    f.input.dispatchEvent(new Event('input'));
    f.fixture.componentRef.setInput('bpm', 110);
    f.fixture.detectChanges();
    expect(f.input.value).toBe('240');
    f.type('240');
    expect(f.told).toEqual([240]);
  });
  it('arrows step', () => {
    const f = field(90);
    f.input.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp' }));
    f.input.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', shiftKey: true }));
    expect(f.told).toEqual([91, 85]);
  });
});

describe('the ribbon as a component', () => {
  it('draws stems and blocks, points at strokes, and has a playhead only while it sounds', () => {
    const fixture = TestBed.createComponent(RibbonComponent);
    fixture.componentRef.setInput('pattern', build(typed('R! l K fR')).pattern);
    fixture.componentRef.setInput('pointed', [0]);
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    expect([
      host.querySelectorAll('.stem').length,
      host.querySelectorAll('.block').length,
      host.querySelectorAll('.grace').length,
    ]).toEqual([3, 1, 1]);
    expect(host.querySelectorAll('.pointed')).toHaveLength(1);
    expect(host.querySelector('.playhead')).toBeNull();
    expect(host.querySelector('svg')?.getAttribute('aria-label')).toBe('Ribbon: 4 strokes on 16ths over 1 beat');
  });
});

describe('the playhead', () => {
  it('passes the middle of each slot as its stroke sounds, and never leaves the drawing', () => {
    const { pattern } = build(typed('R L R L'));
    const at = signal<number | null>(0);
    const fixture = TestBed.createComponent(RibbonComponent);
    fixture.componentRef.setInput('pattern', pattern);
    fixture.componentRef.setInput('width', 640);
    fixture.componentRef.setInput('position', at);
    fixture.componentRef.setInput('loop', pattern.length);
    const x = (tick: number): number => {
      at.set(tick);
      fixture.detectChanges();
      const line = (fixture.nativeElement as HTMLElement).querySelector<SVGElement>('.playhead');
      return Number(/^translateX\((.+)px\)$/.exec(line?.style.transform ?? '')?.[1]);
    };
    const [row] = fixture.componentInstance.layout().rows;
    const end = (row?.inset ?? 0) + pattern.length * (row?.scale ?? 0);
    const stems = fixture.componentInstance.layout().rows.flatMap((r) => r.stems.map((s) => s.x));
    stems.forEach((stem, i) => expect(x(i * 1260)).toBeCloseTo(stem, 6));
    for (let tick = 0; tick < pattern.length; tick += 90) expect(x(tick)).toBeLessThanOrEqual(end);
    // The last half slot lies before the first stroke.
    expect(x(pattern.length - 315)).toBeLessThan(x(0));
  });
});

describe('the stairs', () => {
  it('fill what was passed, light where it stands, and count what was messy', () => {
    let drill = newDrill('d', 'p', { start: 60, goal: 90, step: 10, loops: 1 });
    for (const kind of ['start', 'counted-in', 'loop', 'clean', 'counted-in', 'messy'] as const)
      drill = drillStep(drill, { kind, id: kind, at: 1000 });
    const fixture = TestBed.createComponent(StairsComponent);
    fixture.componentRef.setInput('drill', drill);
    fixture.detectChanges();
    const host = fixture.nativeElement as HTMLElement;
    expect([...host.querySelectorAll('rect')].map((r) => r.getAttribute('class'))).toEqual([
      'passed',
      'lit',
      'ahead',
      'ahead',
    ]);
    expect(host.textContent).toContain('1 messy');
  });
});
