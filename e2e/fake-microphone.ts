import { mkdirSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { CHROMIUM } from './chromium';
import { playing, synthesise } from '../app/sound/voices';

const RATE = 48_000;

/** What a fake microphone hears: strokes on a snare at some seconds, in noise, all of it louder or softer by `gain`. */
export interface Heard {
  readonly seconds: number;
  readonly strokes: readonly { readonly at: number; readonly velocity: number }[];
  readonly noise: number;
  readonly gain: number;
}

/** A WAV file for the browser to take for a microphone, again and again. */
export function fakeMicrophone(name: string, { seconds, strokes, noise, gain }: Heard): string {
  const samples = new Float32Array(RATE * seconds);
  for (const stroke of strokes) {
    const voice = playing('snare', stroke.velocity);
    synthesise(voice.name, RATE).forEach((v, i) => {
      const at = Math.round(stroke.at * RATE) + i;
      if (at < samples.length) samples[at] = (samples[at] ?? 0) + v * voice.gain;
    });
  }
  let seed = 1;
  const data = Buffer.alloc(44 + samples.length * 2);
  data.write('RIFF', 0);
  data.writeUInt32LE(36 + samples.length * 2, 4);
  data.write('WAVEfmt ', 8);
  data.writeUInt32LE(16, 16);
  data.writeUInt16LE(1, 20);
  data.writeUInt16LE(1, 22);
  data.writeUInt32LE(RATE, 24);
  data.writeUInt32LE(RATE * 2, 28);
  data.writeUInt16LE(2, 32);
  data.writeUInt16LE(16, 34);
  data.write('data', 36);
  data.writeUInt32LE(samples.length * 2, 40);
  samples.forEach((v, i) => {
    seed = (seed * 16807) % 2147483647;
    const noisy = gain * (v + noise * ((seed / 2147483647) * 2 - 1));
    data.writeInt16LE(Math.round(Math.max(-1, Math.min(1, noisy)) * 32767), 44 + i * 2);
  });
  const folder = resolve('test-results');
  mkdirSync(folder, { recursive: true });
  const file = join(folder, `${name}-${process.pid}.wav`);
  writeFileSync(file, data);
  return file;
}

/** A browser that hears such a file. */
export function listeningTo(file: string) {
  return {
    audio: 'browser' as const,
    permissions: ['microphone'],
    launchOptions: {
      executablePath: CHROMIUM,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-dev-shm-usage',
        '--autoplay-policy=no-user-gesture-required',
        '--use-fake-ui-for-media-stream',
        '--use-fake-device-for-media-stream',
        `--use-file-for-fake-audio-capture=${file}`,
      ],
    },
  };
}
