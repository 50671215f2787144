import { barsSpan, type Pattern } from '../../pattern';
import type { Pick } from './pick';

/**
 * "Until" and "between" leave what they name out, or take it in; a half without a bar is that of the phrase, or of each
 * of its bars. Null where neither was said.
 */
export function eitherWay({ until, between, ...rest }: Pick, pattern: Pattern): readonly Pick[] | null {
  const { half, halfOf, bars } = rest;
  if (half !== undefined && !halfOf && !bars && barsSpan(pattern).bars > 1)
    return [
      { ...rest, halfOf: 'phrase' },
      { ...rest, halfOf: 'bar' },
    ];
  if (until)
    return [
      { ...rest, before: until },
      { ...rest, to: until },
    ];
  if (!between) return null;
  const [since, to] = between;
  return [
    { ...rest, after: since, before: to },
    { ...rest, since, to },
  ];
}
