/** How a WAV file is made. */
export interface WavForm {
  readonly rate: number;
  readonly channels: number;
  /** 8, 16 or 24. */
  readonly bits: number;
  readonly seconds: number;
}

/** A WAV file whose samples are what `wave` says at a second, −1 to 1, in every channel; silence without it. */
export function wavFile({ rate, channels, bits, seconds }: WavForm, wave?: (t: number) => number): Buffer {
  const bytes = bits / 8;
  const frames = Math.round(rate * seconds);
  const long = frames * channels * bytes;
  const head = channels > 2 ? 68 : 44;
  const file = Buffer.alloc(head + long, bits === 8 ? 128 : 0);
  file.write('RIFF', 0);
  file.writeUInt32LE(head - 8 + long, 4);
  file.write('WAVEfmt ', 8);
  file.writeUInt32LE(channels > 2 ? 40 : 16, 16);
  file.writeUInt16LE(channels > 2 ? 0xfffe : 1, 20);
  file.writeUInt16LE(channels, 22);
  file.writeUInt32LE(rate, 24);
  file.writeUInt32LE(rate * channels * bytes, 28);
  file.writeUInt16LE(channels * bytes, 32);
  file.writeUInt16LE(bits, 34);
  if (channels > 2) {
    // More than two channels say which loudspeaker each is: front, centre, low, back and side ones.
    file.writeUInt16LE(22, 36);
    file.writeUInt16LE(bits, 38);
    file.writeUInt32LE(0x63f, 40);
    Buffer.from('0100000000001000800000aa00389b71', 'hex').copy(file, 44);
  }
  file.write('data', head - 8);
  file.writeUInt32LE(long, head - 4);
  if (wave)
    for (let i = 0; i < frames; i++)
      for (let c = 0; c < channels; c++) {
        const v = Math.max(-1, Math.min(1, wave(i / rate)));
        const at = head + (i * channels + c) * bytes;
        if (bits === 8) file.writeUInt8(Math.round(128 + 127 * v), at);
        else file.writeIntLE(Math.round(v * (2 ** (bits - 1) - 1)), at, bytes);
      }
  return file;
}

/** Strokes at even distances that ring: the same for every file. */
export function strokesEvery(seconds: number): (t: number) => number {
  return (t) => {
    const since = t % seconds;
    return Math.exp(-since / 0.05) * Math.sin(2 * Math.PI * (180 * since + 3000 * since * Math.exp(-since / 0.01)));
  };
}
