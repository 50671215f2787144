import type { Frame } from './frames';
import { HEIGHT_FRAMES } from './height-frames';
import { PIECE_FRAMES } from './piece-frames';
import { TIME_FRAMES } from './time-frames';

/** What each act takes, the roles in whatever order they are said. */
export const FRAMES: readonly Frame[] = [...PIECE_FRAMES, ...HEIGHT_FRAMES, ...TIME_FRAMES];
