import { wavBytes, wavEnd, wavHead } from '@core/formats/wav';

/** One channel as a WAV file of 16 bits. */
export function wavFile(samples: Float32Array, rate: 44_100): Blob {
  const form = { rate, bits: 16 } as const;
  const peak = samples.reduce((m, x) => Math.max(m, Math.abs(x)), 1);
  const even = samples.map((x) => x / peak);
  return new Blob([wavHead(even.length, form), wavBytes(even, form.bits), wavEnd(even.length, form)], {
    type: 'audio/wav',
  });
}
