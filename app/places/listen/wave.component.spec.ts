import { evenLay, peaksOf, type HeardOnset } from '@core/listen';
import { meter } from '@core/time';
import { mount } from '../../testing/mount';
import { freshTestBed } from '../../testing/test-bed';
import { WaveComponent } from './wave.component';

const RATE = 1000;
const peaks = peaksOf(
  Float32Array.from({ length: 60 * RATE }, (_, i) => Math.sin(i / 3)),
  RATE,
);
const every = (seconds: number): HeardOnset[] =>
  Array.from({ length: Math.floor(60 / seconds) }, (_, i) => ({ at: i * seconds, sure: i % 2 ? 0.9 : 0.6 }));

function wave(inputs: Readonly<Record<string, unknown>>) {
  freshTestBed();
  const m = mount(WaveComponent, { peaks, sight: { from: 0, to: 60 }, ...inputs });
  const svg = m.host.querySelector('svg');
  if (!svg) throw new Error('no drawing');
  const width = m.component.width();
  // What a browser would measure.
  jest
    .spyOn(m.host, 'getBoundingClientRect')
    .mockReturnValue({ left: 0, top: 0, width, height: 150, right: width, bottom: 150, x: 0, y: 0 } as DOMRect);
  Object.assign(svg, { setPointerCapture: () => undefined });
  const pointer = (kind: string, x: number, y = 80): void => {
    svg.dispatchEvent(Object.assign(new MouseEvent(kind, { clientX: x, clientY: y, bubbles: true }), { pointerId: 1 }));
    m.fixture.detectChanges();
  };
  return { ...m, svg, width, pointer, many: (what: string) => svg.querySelectorAll(what).length };
}

describe('the wave', () => {
  it('marks every stroke that is in sight, or none where they would lie on each other', () => {
    const far = wave({ onsets: every(0.02) });
    expect(far.many('.onset')).toBe(0);
    far.set('sight', { from: 10, to: 11 });
    expect(far.many('.onset')).toBe(51);
    expect(far.many('.onset.unsure')).toBe(26);
  });

  it('draws beats and bars of the grid, from afar bars only, from further none', () => {
    const m = wave({ lay: evenLay(120, 0, meter(4, 4)), sight: { from: 0, to: 4 } });
    expect([m.many('.line'), m.many('.line.bar')]).toEqual([9, 3]);
    expect([...m.svg.querySelectorAll('text')].map((t) => t.textContent)).toEqual(['1', '2', '3']);
    m.set('lay', evenLay(300, 0, meter(1, 16)));
    m.set('sight', { from: 0, to: 60 });
    expect(m.many('.line')).toBe(0);
  });

  it('tells what is dragged over, where it is pressed, and the bar line that is pulled', () => {
    const m = wave({ lay: evenLay(120, 0, meter(4, 4)), sight: { from: 0, to: 8 }, bends: true });
    const told: string[] = [];
    const seconds = (x: number): string => x.toFixed(2);
    m.component.marked.subscribe((s) => told.push(`marked ${seconds(s.from)} ${seconds(s.to)}`));
    m.component.pressed.subscribe((at) => told.push(`pressed ${seconds(at)}`));
    m.component.bent.subscribe((b) => told.push(`bent ${b.bar} ${seconds(b.at)}`));
    const x = (at: number): number => (at / 8) * m.width;
    m.pointer('pointerdown', x(6));
    m.pointer('pointermove', x(3));
    m.pointer('pointermove', x(2));
    m.pointer('pointerup', x(2));
    m.pointer('pointerdown', x(5));
    m.pointer('pointerup', x(5) + 1);
    // At its top end a bar line is taken hold of: that of bar 2, at two seconds.
    m.pointer('pointerdown', x(2), 6);
    m.pointer('pointermove', x(2.25), 6);
    m.pointer('pointerup', x(2.25), 6);
    expect(told).toEqual(['marked 2.00 6.00', `pressed ${seconds(5 + 8 / m.width)}`, 'bent 1 2.25']);
  });
});
