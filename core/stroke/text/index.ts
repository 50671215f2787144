export type { Node, TypedStroke } from './nodes';
export { TEXT_LIMITS } from './nodes';
export { parseStrokeText, slotCount, type TextCode } from './parse';
export { asTyped, printStroke, printStrokeText, printTyped } from './print';
export { slotsOf } from './slots';
