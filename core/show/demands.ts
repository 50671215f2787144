import { barTicks, GRID, gridsOf } from '../time';
import { COMPOSE_LIMITS, type Demands, type SlotWish } from '../compose';
import type { Cue, Spot } from '../shelf';
import { countText, cueMeter } from './room';

/**
 * What is asked of a composed phrase so that it stands in a spot: its room, hits and rests, landing and tempo. Null
 * where no such phrase can be asked for: on no subdivision does it begin and end on a slot, or it is longer than 128.
 */
export function demandsOfSpot(spot: Spot, cue: Cue): Partial<Demands> | null {
  const m = cueMeter(cue);
  const bar = barTicks(m);
  const usual = [cue.grid ?? GRID.sixteenths, ...(cue.grid === null ? gridsOf(m) : [])];
  const lies = (g: number): boolean =>
    [spot.from, spot.length, ...spot.hits, ...spot.free].every((t) => t % g === 0) &&
    spot.length / g <= COMPOSE_LIMITS.slots;
  const grid = usual.find(lies);
  if (grid === undefined) return null;
  const ends = spot.from + spot.length;
  // Half bars can be asked for; what ends elsewhere is told short of the bar line.
  const bars = Math.ceil((2 * ends) / bar) / 2;
  const short = bars * bar - ends;
  const wish =
    (what: SlotWish['what']) =>
    (t: number): SlotWish => ({ slot: t / grid, what, must: true });
  return {
    meter: cue.meter,
    grid,
    bars,
    from: spot.from === 0 ? null : countText(spot.from, { ...cue, grid }),
    short,
    wishes: [...spot.hits.map(wish('hit')), ...spot.free.map(wish('rest'))],
    lands: spot.lands === 'crash' ? 'right' : spot.lands === 'kick' ? 'kick' : 'nowhere',
    holds: Math.round(cue.tempo),
    // What is left alone needs something to be left alone with.
    ...(spot.free.length > 0 ? { blocks: ['singles', 'kicks', 'rests'] as const } : {}),
  };
}
