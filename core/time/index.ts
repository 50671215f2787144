export { backbeatTicks } from './backbeats';
export { type Count, countAt, type Counting, countWords, parseCount, type Schools, USUAL_SCHOOLS } from './counts';
export { type Feel, feelWords, STRAIGHT, straightened, SWING, swung } from './feel';
export { divisionOf, type Grid, GRID, gridName, gridsOf, parseGrid, slotsWords } from './grid';
export {
  barTicks,
  beatTicks,
  countedBeats,
  isCompound,
  meter,
  type Meter,
  METER_UNITS,
  meterText,
  MOST_BEATS,
  parseMeter,
  quarterTempo,
  unitTicks,
} from './meter';
export { keptTempo, readTempo, TEMPO } from './tempo';
export { secondsOf, ticks, type Ticks, TICKS_PER_QUARTER, wholeTicks } from './ticks';
