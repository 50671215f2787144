export type { Node, TypedStroke } from './nodes';
export { TEXT_LIMITS } from './nodes';
export { parseStrokeText, slotCount, type TextCode } from './parse';
export { printStroke, printStrokeText } from './print';
export { slotsOf } from './slots';
