// The rules of the voice that a program can check, for strings as they stand in the sources and for sentences as they
// are printed from facts.

/** A pattern that no string a user reads may hold, and what is said instead. */
export const FORBIDDEN: readonly (readonly [pattern: RegExp, instead: string])[] = [
  [/\bticks?\b/i, 'a count, or nothing'],
  [/(?<!\bthere )\bis no (?!longer)/i, '“is not a …”'],
  [/\bis nothing that\b/, '“is not a …”'],
  [/±|[+−]\d+ ?ms/, '“12 ms late”, “spread 8 ms”'],
  [/\d %/, 'percent closed up'],
  [/beats? a minute/i, 'bpm'],
  [/\b(strokes|notes|cm|loops|syllables?) an? (hand|second|minute|bar|rung|piece)\b/, '“per hand”'],
  [/\b(fifth|sixth|seventh|eighth|ninth|tenth|eleventh|twelfth) (of|stroke|slot|repeat|group)\b/, 'digits'],
  [/ · .* · .* · /, 'two facts at most'],
  [/\b(take|takes|taken|took) (it|that|this|them|these|what)\b(?! apart)/i, 'keep, use, undo, remove'],
  [/\b(take|taken|takes) (it |that )?back\b/i, 'undo'],
  [/\blet (it|them|all)? ?go\b/i, 'delete, choose none'],
  [/\b(put|puts) (it )?down\b/i, 'paste'],
  [/\b(practice room|in the room|to the room)\b/i, 'Drill'],
  [/\b(lies|lie|lay) (\d|farthest|off|behind|ahead|against)/, 'is'],
  [/\bwanted\b/, 'goal, needed by'],
  [/\bkin\b/i, 'related'],
  [/\bschool of\b|\bthis school\b/, 'style'],
  [/\bthe record\b|\brecords of\b/, 'recording'],
  [/\bstruck\b/, 'played'],
  [/\banew\b/, 'again'],
  [/\b(tight|tightest) (spot|on|at)\b/, 'hard spot'],
  [/\b(drags|hurries) \d/, 'is 12 ms late'],
  [/\bbars? of time\b|\bout of time\b/, 'groove'],
  [/\b(put|puts) (it )?aside\b/, 'discard'],
  [/\bdrop (it|this)\b/i, 'delete'],
  [/\bheld against\b|\bhold (it|that) against\b/, 'compare'],
  [/\bmoments\b/, 'places'],
  [/\bthat is so already\b|\bis there already\b/i, 'already …'],
  [/\bround again\b|\bcomes round\b/i, 'when it loops, the same again'],
  [/\bnothing is kept before\b/i, 'until'],
  [/\blatency\b/i, 'delay'],
  [/\b2 times\b/, 'twice'],
];

/** What is forbidden in a text, each with what is said instead. */
export const forbiddenIn = (text: string): readonly string[] =>
  FORBIDDEN.flatMap(([pattern, instead]) => {
    const found = pattern.exec(text);
    return found ? [`“${found[0]}”: ${instead}`] : [];
  });

/** Words of a text, as a person counts them. */
export const wordsIn = (text: string): number => text.split(/\s+/).filter((w) => /[\p{L}\d…]/u.test(w)).length;

/** Words of a button, without those that carry nothing: “Put back on the shelf” has four. */
export const wordsOfButton = (text: string): number => wordsIn(text.replace(/\b(the|an?|it)\b/gi, ' '));

const NOUNS =
  'stroke|bar|beat|loop|try|take|day|minute|slot|sixteenth|eighth|quarter|note|phrase|time|edit|place|unison|rung|stage|accent|kick';
const PLURALS = NOUNS.replace('try', 'trie').replaceAll('|', 's|') + 's';

/** What is wrong with the grammar of a printed text: numbers and nouns, articles, signs, what was never filled. */
export function grammarOf(text: string): readonly string[] {
  const rules: readonly (readonly [RegExp, string])[] = [
    [/undefined|null|NaN|\[object|Infinity/, 'a hole'],
    [/ {2}/, 'two spaces'],
    [/ [.,;:](?= |$)/, 'a space before a sign'],
    [/\.\.(?!\.)|,\.|;\.|:\./, 'two signs'],
    [new RegExp(`(?<![\\d.:+&/])\\b1 (${PLURALS})\\b`), 'one of many'],
    [
      new RegExp(`\\b([2-9]|[1-9]\\d+) (${NOUNS})\\b(?! (roll|kicks?|hand|foot|strokes?|as|on|each|against)\\b)`),
      'many of one',
    ],
    // The a of 1 is a count.
    [/\ba (?!(of|in|after|and)\b)[aeio]\w/i, '“a” before a vowel'],
    [/\ban [^aeiou“8 1]/i, '“an” before a consonant'],
    [/\(\)|“”/, 'an empty bracket'],
  ];
  return rules.flatMap(([pattern, what]) => (pattern.test(text) ? [`${what}: ${text}`] : []));
}
