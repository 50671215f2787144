import { OnsetDetector } from '@core/listen';
import { line } from './measure';

const RATE = 48_000;
const SECONDS = 10;
/** What a worklet is handed at a time. */
const BLOCK = 128;

/** Ten seconds of strokes on a pad, so many a second, with a floor of noise. */
function pad(perSecond: number): Float32Array {
  let seed = 7;
  const noise = (): number => ((seed = (seed * 1664525 + 1013904223) >>> 0), seed / 2147483648 - 1);
  const out = Float32Array.from({ length: RATE * SECONDS }, () => noise() * 0.01);
  for (let n = 0; n < perSecond * SECONDS; n++) {
    const from = Math.round((n * RATE) / perSecond);
    for (let i = from; i < Math.min(out.length, from + 3000); i++) {
      const t = (i - from) / RATE;
      const body = 0.5 * Math.sin(2 * Math.PI * 300 * t) * Math.exp(-t / 0.02);
      out[i] = (out[i] ?? 0) + 0.4 * (noise() * Math.exp(-t / 0.008) + body);
    }
  }
  return out;
}

function hear(samples: Float32Array): number {
  const detector = new OnsetDetector({ rate: RATE, threshold: 0.05, loudest: 0.8 });
  let heard = 0;
  for (let at = 0; at < samples.length; at += BLOCK) heard += detector.push(samples.subarray(at, at + BLOCK)).length;
  return heard + detector.settle().length;
}

/** The least that listening costs: looking at every sample once. */
function look(samples: Float32Array): number {
  let most = 0;
  for (let i = 0; i < samples.length; i++) most = Math.max(most, Math.abs(samples[i] ?? 0));
  return most;
}

console.log('\nonsets: ten seconds of a pad in blocks of 128 samples');
const sparse = pad(2);
for (const perSecond of [2, 8, 18]) {
  const samples = pad(perSecond);
  console.log(
    line(
      `${perSecond} strokes a second: ${hear(samples)} heard`,
      () => hear(samples),
      'the loudest sample of them',
      () => look(sparse),
    ),
  );
}
