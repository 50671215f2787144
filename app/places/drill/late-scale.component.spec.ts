import { mount } from '../../testing/mount';
import { LateScaleComponent } from './late-scale.component';

describe('the scale from early to late', () => {
  const scale = (timings: { name: string; mean: number; spread: number }[]) => {
    const { host } = mount(LateScaleComponent, { timings });
    return [...host.querySelectorAll('[role=img]')].map((line) => ({
      words: line.getAttribute('aria-label'),
      dot: parseFloat(line.querySelector<HTMLElement>('.dot')?.style.left ?? ''),
      isOff: line.querySelector('.dot')?.classList.contains('off'),
    }));
  };
  it('has what is on time in the middle, early to the left, late to the right, as far as it is off', () => {
    expect(
      scale([
        { name: 'right hand', mean: 0, spread: 4 },
        { name: 'left hand', mean: -15, spread: 5 },
        { name: 'kick foot', mean: 30, spread: 0 },
      ]),
    ).toEqual([
      { words: 'right hand: on time, spread 4 ms', dot: 50, isOff: false },
      { words: 'left hand: 15 ms early, spread 5 ms', dot: 25, isOff: true },
      { words: 'kick foot: 30 ms late, spread 0 ms', dot: 100, isOff: true },
    ]);
  });
  it('grows with the farthest, so that nothing lies outside', () => {
    const [, far] = scale([
      { name: 'a', mean: 10, spread: 2 },
      { name: 'b', mean: 90, spread: 30 },
    ]);
    expect(far?.dot).toBeCloseTo(50 + (50 * 90) / 120, 6);
  });
});
