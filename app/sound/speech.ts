import { noiseFrom, type Samples } from './voices';

/**
 * A small voice that speaks one syllable at a time: a pulse through resonators for what is voiced, noise for what
 * hisses or bursts. Formants are usual mean values of spoken English vowels, in Hz.
 */
type Formants = readonly [number, number, number];
const VOWELS: Readonly<Record<string, Formants>> = {
  i: [300, 2250, 2950],
  I: [400, 1950, 2550],
  e: [530, 1800, 2500],
  a: [670, 1700, 2400],
  u: [320, 900, 2250],
  o: [520, 900, 2400],
  A: [740, 1120, 2450],
  V: [630, 1200, 2400],
};

/** One sound of a syllable. `voiced` and `hiss` are loudness; hiss is noise round `at` Hz, `wide` Hz wide. */
interface Phone {
  readonly seconds: number;
  readonly voiced: number;
  readonly hiss: number;
  readonly at: number;
  readonly wide: number;
  readonly formants: Formants;
  /** Where its formants move to, in a diphthong. */
  readonly to?: Formants;
  readonly vowel?: true;
}

const NEUTRAL: Formants = [450, 1450, 2450];
const phone = (part: Partial<Phone>): Phone => ({
  seconds: 0.05,
  voiced: 0,
  hiss: 0,
  at: 3000,
  wide: 2000,
  formants: NEUTRAL,
  ...part,
});
const vowel = (name: string, seconds: number, to?: string): Phone =>
  phone({
    seconds,
    voiced: 1,
    formants: VOWELS[name] ?? NEUTRAL,
    vowel: true,
    ...(to ? { to: VOWELS[to] ?? NEUTRAL } : {}),
  });

/** A stop is a burst and, where it is unvoiced, a breath after it. */
const burst = (at: number, wide: number, seconds: number, hiss: number): Phone => phone({ seconds, hiss, at, wide });
const CONSONANTS: Readonly<Record<string, readonly Phone[]>> = {
  p: [burst(900, 1200, 0.012, 0.7), phone({ seconds: 0.022, hiss: 0.2, at: 1500, wide: 2500 })],
  t: [burst(4200, 2600, 0.012, 0.9), phone({ seconds: 0.02, hiss: 0.28, at: 3500, wide: 3000 })],
  k: [burst(1900, 900, 0.016, 0.9), phone({ seconds: 0.024, hiss: 0.25, at: 2000, wide: 2000 })],
  b: [phone({ seconds: 0.014, voiced: 0.3, formants: [250, 900, 2200] }), burst(800, 900, 0.008, 0.4)],
  d: [phone({ seconds: 0.014, voiced: 0.3, formants: [250, 1700, 2600] }), burst(3600, 2200, 0.008, 0.5)],
  g: [phone({ seconds: 0.014, voiced: 0.3, formants: [250, 1900, 2300] }), burst(1800, 900, 0.01, 0.45)],
  f: [phone({ seconds: 0.055, hiss: 0.22, at: 5500, wide: 5000 })],
  T: [phone({ seconds: 0.05, hiss: 0.18, at: 6200, wide: 4500 })],
  s: [phone({ seconds: 0.06, hiss: 0.5, at: 6500, wide: 2600 })],
  S: [phone({ seconds: 0.06, hiss: 0.5, at: 2900, wide: 1500 })],
  h: [phone({ seconds: 0.035, hiss: 0.18, at: 1600, wide: 2600 })],
  v: [phone({ seconds: 0.045, voiced: 0.4, hiss: 0.1, at: 5500, wide: 4500, formants: [280, 1100, 2300] })],
  z: [phone({ seconds: 0.05, voiced: 0.35, hiss: 0.3, at: 6300, wide: 2600, formants: [280, 1600, 2500] })],
  m: [phone({ seconds: 0.05, voiced: 0.55, formants: [250, 1000, 2100] })],
  n: [phone({ seconds: 0.05, voiced: 0.55, formants: [250, 1550, 2450] })],
  N: [phone({ seconds: 0.06, voiced: 0.5, formants: [250, 1950, 2350] })],
  l: [phone({ seconds: 0.045, voiced: 0.7, formants: [350, 1050, 2800] })],
  r: [phone({ seconds: 0.045, voiced: 0.7, formants: [380, 1150, 1650] })],
  w: [phone({ seconds: 0.045, voiced: 0.7, formants: [300, 650, 2200] })],
  y: [phone({ seconds: 0.04, voiced: 0.7, formants: [280, 2250, 2950] })],
};
const CHURCH: readonly Phone[] = [...(CONSONANTS['t'] ?? []).slice(0, 1), ...(CONSONANTS['S'] ?? [])];

/** Count words that are not spelt as they sound: consonants by letter, vowels by the table, `:` long, `>` gliding. */
const SPOKEN: Readonly<Record<string, string>> = {
  one: 'w V n',
  two: 't u:',
  three: 'T r i:',
  four: 'f o: r',
  five: 'f A>I v',
  six: 's I k s',
  seven: 's e v n',
  eight: 'e>I t',
  nine: 'n A>I n',
  ten: 't e n',
  eleven: 'l e v n',
  twelve: 't w e l v',
  e: 'i:',
  and: 'a n',
  a: 'V',
  trip: 't r I p',
  let: 'l e t',
  ta: 't A:',
  la: 'l A:',
};

/** Spellings of more than one letter, the longest first; any other letter stands for itself. */
const SPELLINGS: readonly (readonly [string, string])[] = [
  ['sh', 'S'],
  ['ch', 'C'],
  ['th', 'T'],
  ['ng', 'N'],
  ['oo', 'u:'],
  ['ee', 'i:'],
  ['ah', 'A:'],
  ['a', 'A'],
  ['i', 'I'],
  ['o', 'o'],
  ['u', 'u'],
  ['e', 'e'],
  ['c', 'k'],
  ['q', 'k'],
  ['x', 'k s'],
  ['j', 'd S'],
];

/** What a syllable is made of, by the words of counting or by how it is spelt. */
function soundsOf(syllable: string): string[] {
  const known = SPOKEN[syllable];
  if (known) return known.split(' ');
  const found: string[] = [];
  for (let i = 0; i < syllable.length;) {
    const rest = syllable.slice(i);
    const spelling = SPELLINGS.find(([letters]) => rest.startsWith(letters));
    const sound = spelling?.[1] ?? (CONSONANTS[rest.charAt(0)] ? rest.charAt(0) : '');
    if (sound !== '') found.push(...sound.split(' '));
    i += spelling?.[0].length ?? 1;
  }
  return found;
}

/** A vowel lasts so long, in s; a long or gliding one longer, and one that ends the syllable a little more. */
const VOWEL = { short: 0.085, long: 0.12, last: 0.02 };

function phonesOf(syllable: string): readonly Phone[] {
  const sounds = soundsOf(syllable);
  return sounds.flatMap((sound, i): readonly Phone[] => {
    if (sound === 'C') return CHURCH;
    const [, name = '', long, to] = /^([iIeauoAV])(:)?(?:>(\w))?$/.exec(sound) ?? [];
    if (name === '') return CONSONANTS[sound] ?? [];
    const seconds = (long || to ? VOWEL.long : VOWEL.short) + (i === sounds.length - 1 ? VOWEL.last : 0);
    return [vowel(name, seconds, to)];
  });
}

/** A two-pole resonator; its frequency may move while it sounds. */
class Resonator {
  private y1 = 0;
  private y2 = 0;
  private a = 1;
  private b = 0;
  private c = 0;

  tune(hertz: number, wide: number, rate: number): void {
    const r = Math.exp((-Math.PI * wide) / rate);
    this.c = -r * r;
    this.b = 2 * r * Math.cos((2 * Math.PI * hertz) / rate);
    this.a = 1 - this.b - this.c;
  }

  next(x: number): number {
    const y = this.a * x + this.b * this.y1 + this.c * this.y2;
    this.y2 = this.y1;
    this.y1 = y;
    return y;
  }
}

/** A syllable as samples, and on which of them its vowel begins: that one falls on the tick. */
export interface Said {
  readonly samples: Samples;
  readonly mark: number;
}

const PEAK = 0.8;
/** Widths of the formants, pitch at the beginning and end, and how long one sound takes to become the next. */
const WIDTHS = [80, 100, 140] as const;
const PITCH = { from: 132, to: 104 };
const GLIDE = 0.024;

/**
 * Speaks one syllable, in small letters: a word of counting, or anything sung that can be spelt. Text without a letter
 * that sounds gives a short neutral vowel.
 */
export function speak(syllable: string, rate: number): Said {
  const made = phonesOf(syllable.toLowerCase().slice(0, 12));
  const phones = made.length > 0 ? made : [vowel('V', VOWEL.short)];
  const lengths = phones.map((p) => Math.round(p.seconds * rate));
  const total = lengths.reduce((a, b) => a + b, 0);
  const firstVowel = Math.max(
    0,
    phones.findIndex((p) => p.vowel),
  );
  const mark = lengths.slice(0, firstVowel).reduce((a, b) => a + b, 0);
  const samples = new Float32Array(total);
  const mouth = WIDTHS.map(() => new Resonator());
  const hiss = new Resonator();
  const noise = noiseFrom(0x2f6e);
  let phase = 0;
  let pulse = 0;
  let [i, from] = [0, 0];
  let voiced = 0;
  let breath = 0;
  for (let n = 0; n < total; n++) {
    while (i < phones.length - 1 && n >= from + (lengths[i] ?? 0)) from += lengths[i++] ?? 0;
    const now = phones[i] ?? phones[0];
    if (!now) break;
    const share = (n - from) / Math.max(1, lengths[i] ?? 1);
    if (n % 32 === 0) {
      const before = phones[i - 1];
      const gliding = before && now.voiced > 0 ? Math.min(1, (n - from) / (GLIDE * rate)) : 1;
      WIDTHS.forEach((wide, k) => {
        const own =
          (now.formants[k] ?? 500) + ((now.to?.[k] ?? now.formants[k] ?? 500) - (now.formants[k] ?? 500)) * share;
        const last = before ? (before.to ?? before.formants)[k] : undefined;
        mouth[k]?.tune((last ?? own) + (own - (last ?? own)) * gliding, wide, rate);
      });
      hiss.tune(Math.min(now.at, rate * 0.42), now.wide, rate);
    }
    // Loudness moves in a few milliseconds, so that nothing clicks.
    voiced += (now.voiced - voiced) * (1 - Math.exp(-1 / (0.004 * rate)));
    breath += (now.hiss - breath) * (1 - Math.exp(-1 / (0.0015 * rate)));
    phase += (PITCH.from + (PITCH.to - PITCH.from) * (n / total)) / rate;
    if (phase >= 1) {
      phase -= 1;
      pulse = 1;
    }
    // A pulse that dies away quickly: bright enough for three formants.
    const source = pulse - 0.12;
    pulse *= Math.exp(-1 / (0.00035 * rate));
    let out = voiced * source;
    for (const r of mouth) out = r.next(out);
    const ending = Math.min(1, (total - n) / (0.012 * rate));
    samples[n] = (out * 1.6 + breath * hiss.next(noise()) * 0.9) * ending;
  }
  const most = samples.reduce((m, x) => Math.max(m, Math.abs(x)), 0);
  return { samples: most > 0 ? samples.map((x) => (x * PEAK) / most) : samples, mark };
}
