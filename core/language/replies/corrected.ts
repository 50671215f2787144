/** What takes back what was just said: "no,", "no wait", "sorry", "I mean", "rather". */
const TAKEN_BACK =
  /\s*,?\s*(?:,\s*(?:no|sorry|wait|rather)\s*,|(?:,?\s*\b(?:no|sorry),?\s+)?\b(?:no wait|no sorry|or rather|I mean|make that)\b)(?:\s*,)?\s*(?:no\s*,\s*)?/i;

/** The most words of which a part is replaced. */
const MOST = 24;

/**
 * A line in which a part takes back one before it, as the lines it can stand for: what was said behind the correction
 * in the place of each part of the same kind. Verb and amount carry over. Null where nothing is taken back.
 *
 * `isKind` says whether words, as they stand, are of the same kind as others: both strokes, both pieces, both counts.
 * Of "ghost the rights, no, the lefts" it gives "ghost the lefts".
 */
export function correctedLines(
  line: string,
  isKind: (part: string, instead: string) => boolean,
): readonly string[] | null {
  const found = TAKEN_BACK.exec(line);
  if (!found || found.index === 0) return null;
  const words = line.slice(0, found.index).trim().split(/\s+/);
  const instead = line.slice(found.index + found[0].length).trim();
  if (instead === '' || words.length > MOST) return null;
  // "…, sorry, to the ride": how it is joined is said once.
  const bare = instead.replace(/^(?:to|on|onto|with|at|in|by) (?=.)/i, '');
  const out: string[] = [];
  // The nearest and longest part of its kind is the one that is meant.
  for (let until = words.length; until > 0; until--) {
    for (let from = 0; from < until; from++)
      for (const part of new Set([instead, bare]))
        if (isKind(words.slice(from, until).join(' '), part))
          out.push([...words.slice(0, from), part, ...words.slice(until)].join(' '));
    if (out.length > 0) break;
  }
  return out;
}
