import { LEVEL_DEFAULTS, type Level } from './level';

/** The four-stroke system: named by the height a stick starts from and the height it must end at. */
export type StrokeType = 'full' | 'down' | 'tap' | 'up';

/**
 * The stroke types of one hand's strokes in order, cyclically: what a stroke must become depends on the same hand's
 * next one. Accents are high, all else low.
 * @example
 * strokeTypes(['accent', 'ghost', 'ghost']) // => ["down", "tap", "up"]
 * strokeTypes(['accent']) // => ["full"]
 */
export function strokeTypes(levels: readonly Level[]): StrokeType[] {
  const high = (level: Level): boolean => LEVEL_DEFAULTS[level].height > LEVEL_DEFAULTS.tap.height;
  return levels.map((level, i) => {
    const next = levels[(i + 1) % levels.length] ?? level;
    if (high(level)) return high(next) ? 'full' : 'down';
    return high(next) ? 'up' : 'tap';
  });
}
