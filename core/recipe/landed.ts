import { barTicks, ticks } from '../time';
import { landingAt, tidy, type Pattern } from '../pattern';
import type { Outcome } from './moves/move';

/**
 * A move of the whole phrase done to what comes before its landing: the landing is the arrival on the next 1, and
 * stands there again after whatever the phrase has become. Patterns that do not end with a landing are handed on.
 */
export function beforeLanding(pattern: Pattern, apply: (body: Pattern) => Outcome): Outcome {
  const landing = landingAt(pattern) === null ? undefined : pattern.groups.at(-1);
  if (!landing) return apply(pattern);
  const bar = barTicks(pattern.meter);
  const arrival = pattern.strokes.filter((s) => s.at >= landing.at);
  const { pattern: body, findings } = apply({
    ...pattern,
    length: landing.at,
    strokes: pattern.strokes.filter((s) => s.at < landing.at),
    groups: pattern.groups.slice(0, -1),
  });
  const one = Math.ceil((body.start + body.length) / bar) * bar - body.start;
  const repeat = body.groups.reduce((most, g) => Math.max(most, g.repeat), 0) + 1;
  return {
    findings,
    pattern: tidy({
      ...body,
      length: ticks(one + landing.length),
      strokes: [
        ...body.strokes,
        ...arrival.map((s) => ({ ...s, at: ticks(s.at - landing.at + one), from: { ...s.from, repeat } })),
      ],
      groups: [...body.groups, { ...landing, at: ticks(one), repeat }],
    }),
  };
}
