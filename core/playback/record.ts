import { barTicks, beatTicks, STRAIGHT } from '../time';
import type { Pattern } from '../pattern';
import type { Layer, LayerEvent } from './layer';

/**
 * The bars of a record as they go round beneath a phrase, beat by beat: so another tempo takes effect at the next
 * beat, and it can begin anywhere.
 * @param bars how many of them the record has
 */
export function recordLayer(meter: Pattern['meter'], bars: number): Layer {
  const period = bars * barTicks(meter);
  const beat = beatTicks(meter);
  const events = Array.from({ length: Math.ceil(period / beat) }, (_, i): LayerEvent => ({
    tick: i * beat,
    offset: 0,
    sound: `record:${i * beat}`,
    velocity: 100,
    limb: null,
    part: 'record',
    room: Math.min(beat, period - i * beat),
  }));
  return { period, from: 0, feel: STRAIGHT, events };
}
