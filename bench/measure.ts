/** Median time of a function in microseconds, after a warm-up, over about a fifth of a second. */
export function median(run: () => unknown): number {
  for (let i = 0; i < 5; i++) run();
  const times: number[] = [];
  const end = performance.now() + 200;
  while (performance.now() < end || times.length < 11) {
    const t = performance.now();
    run();
    times.push(performance.now() - t);
  }
  times.sort((a, b) => a - b);
  return (times[Math.floor(times.length / 2)] ?? 0) * 1000;
}

/** One line of the bench: a measure, the baseline it is held against in the same run, and their ratio. */
export function line(name: string, run: () => unknown, baselineName: string, baseline: () => unknown): string {
  const [a, b] = [median(run), median(baseline)];
  return `${name.padEnd(52)} ${a.toFixed(0).padStart(8)} µs   ${(a / b).toFixed(2).padStart(8)} × ${baselineName} (${b.toFixed(0)} µs)`;
}
