import { FILLS } from './fills';
import { GROOVES } from './grooves';
import { LICKS } from './licks';
import { WARM_UPS } from './warm-ups';
import type { DemoPhrase } from './written';

/** The phrases of The Salt Lantern, an invented harbour-town show. Their ids follow from their places here. */
export const DEMO_PHRASES: readonly DemoPhrase[] = [...FILLS, ...LICKS, ...GROOVES, ...WARM_UPS];
