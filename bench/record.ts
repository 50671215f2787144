import {
  backingClip,
  backingOf,
  beatsHeard,
  fluxOf,
  lettersOf,
  peaksOf,
  proposedKinds,
  slower,
  soundsOf,
  strokesIn,
  type Clip,
} from '@core/listen';
import { playedOut, randomGroove, randomKit, recorded } from '../core/testing/recordings';
import { line } from './measure';

const RATE = 44_100;
const BPM = 96;

const out = playedOut(randomGroove(7), { bpm: BPM, begins: 0.4, seed: 3 });
// Eight bars: the four of the groove, twice.
const blows = [...out.blows, ...out.blows.map((b) => ({ ...b, at: b.at + out.ends - 0.4 }))];
const seconds = 2 * out.ends;
const x = recorded({ rate: RATE, seconds, kit: randomKit(9, RATE), blows, seed: 1, noise: -50, pad: true });
const flux = fluxOf(x, RATE);
const onsets = strokesIn(x, RATE, flux);
const bar = (4 * 60) / BPM;
const clip: Clip = {
  id: 'bench',
  at: 0,
  from: '',
  rate: 32_000,
  samples: lettersOf(x.subarray(0, Math.round(15 * 32_000))),
  meter: '4/4',
  bars: 4,
  marks: [0, 1, 2, 3, 4].map((b) => ({ tick: b * 20_160, at: 0.4 + b * bar })),
};
const own = backingClip(clip);

console.log(`\nlisten: a recording of ${seconds.toFixed(0)} seconds, ${onsets.length} strokes heard`);
const wave = (): unknown => peaksOf(x, RATE);
const beside = (name: string, run: () => unknown): void => console.log(line(name, run, 'its wave, for drawing', wave));
beside('what is new in it', () => fluxOf(x, RATE));
beside('its strokes', () => strokesIn(x, RATE, flux));
beside('its beats', () => beatsHeard(x, RATE, flux, onsets));
beside('kick, drum and cymbal', () =>
  proposedKinds(
    soundsOf(
      x,
      RATE,
      onsets.map((o) => o.at),
    ),
    [],
  ),
);
const part = x.subarray(0, 8 * RATE);
const attacks = onsets.map((o) => Math.round(o.at * RATE)).filter((o) => o < part.length);
beside('eight seconds of it at half speed', () => slower(part, 0.5, attacks, RATE));
if (own) beside('four bars of it made even at half tempo', () => backingOf(own, BPM / 2));
