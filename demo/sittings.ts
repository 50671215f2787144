import { figuresIn, keptCame, keptFigures, keptTime, recognise, withKeptTime, type UsablePhrase } from '@core/usage';
import { patternOfText, untilLanding, type Pattern } from '@core/pattern';
import { build, type Phrase } from '@core/recipe';
import type { FreeSitting } from '@core/shelf';
import { parseStrokeText } from '@core/stroke';
import type { Hit } from '@core/take';
import { barTicks, GRID, meter, quarterTempo, secondsOf } from '@core/time';

const FOUR = meter(4, 4);
const BAR = barTicks(FOUR);
const HOUR = 60 * 60 * 1000;
/** What is played again and again and was never written down. */
const HABIT = 'R! L K K R L K K R! L K K R! L R! L';
/** Time between two phrases, by the bar. */
const TIME = 'R+K - R - R+L! - R - R - R+K - R+L! - R -';

/** Two evenings of free play: their day, tempo, and what comes in which bar; nothing stands for the habit. */
const EVENINGS = [
  { day: 36, bpm: 96, bars: 40, at: ['Cold rope', null, 'Kelp', 'Cold rope', null, 'Gull wings', 'Cold rope', null] },
  { day: 40, bpm: 104, bars: 36, at: ['Kelp', null, 'Cold rope', null, 'Even keel', 'Cold rope', null] },
] as const;

const textPattern = (text: string): Pattern => {
  const read = parseStrokeText(text);
  return patternOfText(read.ok ? read.value : [], FOUR, GRID.sixteenths);
};

/** What the drummer of the demo played freely, read as the application reads it. */
export function lanternSittings(phrases: readonly Phrase[], first: number, random: () => number): FreeSitting[] {
  const known = phrases.map((p): UsablePhrase => ({ id: p.id, pattern: build(p.recipe).pattern, form: p.id }));
  const patternOf = (name: string | null): Pattern => {
    const own = known.find((k) => phrases.find((p) => p.name === name)?.id === k.id);
    return own ? untilLanding(own.pattern) : textPattern(HABIT);
  };
  return EVENINGS.map(({ day, bpm, bars, at }, n): FreeSitting => {
    const places = at.map((name, i) => ({ pattern: patternOf(name), bar: 3 + 4 * i }));
    const hits = played(places, bars, bpm, random);
    const of = { hits, meter: FOUR, bpm };
    const came = withKeptTime(recognise(known, of), keptTime(known, of));
    return {
      id: `lantern-sitting-${n + 1}`,
      kind: 'free',
      at: first + day * 24 * HOUR + 19 * HOUR,
      seconds: Math.round(secondsOf(bars * BAR, quarterTempo(bpm, FOUR))),
      meter: '4/4',
      bpm,
      found: false,
      source: 'midi',
      groove: null,
      against: known.length,
      hits,
      heard: hits.length,
      came: keptCame(came).map((c) => ({ ...c, chance: round(c.chance) })),
      figures: keptFigures(figuresIn(of, came)),
      calls: [],
      changed: first + day * 24 * HOUR + 19 * HOUR,
    };
  });
}

function played(
  places: readonly { readonly pattern: Pattern; readonly bar: number }[],
  bars: number,
  bpm: number,
  random: () => number,
): Hit[] {
  const second = (tick: number): number => secondsOf(tick, quarterTempo(bpm, FOUR));
  const spans = places.map(({ pattern, bar }) => {
    const from = bar * BAR + pattern.start;
    return { pattern, from, until: from + pattern.length };
  });
  const time = textPattern(TIME).strokes;
  const strokes = [
    ...Array.from({ length: bars }, (_, b) => time.map((s) => ({ ...s, tick: b * BAR + s.at })))
      .flat()
      .filter(({ tick }) => !spans.some((p) => tick >= p.from && tick < p.until)),
    ...spans.flatMap(({ pattern, from }) => pattern.strokes.map((s) => ({ ...s, tick: from + s.at }))),
  ];
  return strokes
    .map(({ tick, voice, level }): Hit => {
      const scatter = 0.008 * (random() + random() + random() - 1.5);
      const force = level === 'accent' ? 108 : level === 'tap' ? 68 : 36;
      return {
        seconds: round(Math.max(0, second(tick) + scatter)),
        limb: null,
        voice,
        velocity: force + Math.floor(10 * random()) - 5,
      };
    })
    .sort((a, b) => a.seconds - b.seconds);
}

const round = (n: number): number => Math.round(n * 1000) / 1000;
