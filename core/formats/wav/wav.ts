/** How a sound is written down: samples a second, and bits a sample. One channel. */
export interface WavForm {
  readonly rate: 44_100 | 48_000;
  readonly bits: 16 | 24;
}

/** Bytes of a header. */
const HEADER = 44;
/** Full scale of each depth. */
const FULL = { 16: 32_767, 24: 8_388_607 } as const;

/**
 * The head of a WAV file of so many samples (RIFF, PCM, one channel).
 * @example
 * wavHead(48_000, { rate: 48_000, bits: 16 }).length // => 44
 */
export function wavHead(samples: number, { rate, bits }: WavForm): Uint8Array<ArrayBuffer> {
  const width = bits / 8;
  // A sample of 24 bits may end on an odd byte, which is then filled up.
  const data = samples * width;
  const b = new DataView(new ArrayBuffer(HEADER));
  const tag = (at: number, s: string): void => {
    for (let i = 0; i < 4; i++) b.setUint8(at + i, s.charCodeAt(i));
  };
  tag(0, 'RIFF');
  b.setUint32(4, 36 + data + (data % 2), true);
  tag(8, 'WAVE');
  tag(12, 'fmt ');
  b.setUint32(16, 16, true);
  b.setUint16(20, 1, true);
  b.setUint16(22, 1, true);
  b.setUint32(24, rate, true);
  b.setUint32(28, rate * width, true);
  b.setUint16(32, width, true);
  b.setUint16(34, bits, true);
  tag(36, 'data');
  b.setUint32(40, data, true);
  return new Uint8Array(b.buffer);
}

/**
 * Samples from −1 to 1 as the bytes of a WAV file; what is louder is held at full scale.
 * @example
 * wavBytes(Float32Array.of(0, 1, -2), 16) // => Uint8Array.of(0, 0, 255, 127, 1, 128)
 */
export function wavBytes(samples: Float32Array, bits: WavForm['bits']): Uint8Array<ArrayBuffer> {
  const width = bits / 8;
  const full = FULL[bits];
  const out = new Uint8Array(samples.length * width);
  for (let i = 0, at = 0; i < samples.length; i++) {
    const v = Math.round(Math.max(-1, Math.min(1, samples[i] ?? 0)) * full);
    for (let k = 0; k < width; k++) out[at++] = (v >> (8 * k)) & 255;
  }
  return out;
}

/** The byte that fills a file up to an even length; none where it is even. */
export function wavEnd(samples: number, { bits }: WavForm): Uint8Array<ArrayBuffer> {
  return new Uint8Array(((samples * bits) / 8) % 2);
}
