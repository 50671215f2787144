import type { MoveName, MoveParams } from './registry';
import { chooses } from '../selection';

/**
 * A move shown on a short phrase: typed strokes on a grid, the move, and what comes out, as voiced text. The tests work
 * each of them out.
 */
export type MoveExample = {
  readonly [N in MoveName]: {
    readonly move: N;
    readonly params: MoveParams[N];
    readonly before: string;
    readonly meter: string;
    readonly grid: number;
    readonly after: string;
    /** The grid of the text that comes out, when it is another. */
    readonly on?: string;
  };
}[MoveName];

const on16ths = { meter: '4/4', grid: 1260 } as const;
const snareToFloor = (['snare', 'high-tom', 'floor-tom'] as const).map((v) => ({ right: v, left: v }));

/** At least one example of every move; docs/moves.md is written from them. */
export const MOVE_EXAMPLES: readonly MoveExample[] = [
  { move: 'grid', params: { grid: 1680 }, before: 'R l l R', ...on16ths, after: 'R l l R', on: 'triplets' },
  {
    move: 'grid',
    params: { grid: 630, part: { from: 3, to: 4 } },
    before: 'R l R L',
    ...on16ths,
    after: 'R - l - R L',
    on: '32nds',
  },
  {
    move: 'grid',
    params: { grid: 630, part: { from: 1, to: 2, on: '1&' } },
    before: 'R! l K L',
    ...on16ths,
    after: 'R! - l - R! l L -',
    on: '32nds',
  },
  {
    move: 'rate',
    params: { times: 1, by: 2 },
    before: 'R - L - R L R -',
    ...on16ths,
    after: 'R - L - R L R -',
    on: '32nds',
  },
  {
    move: 'rate',
    params: { times: 3, by: 2 },
    before: 'R L',
    ...on16ths,
    after: 'R L',
    on: 'four to the dotted quarter',
  },
  { move: 'insert', params: { text: 'K', where: { kind: 'end' } }, before: 'R l l R', ...on16ths, after: 'R l l R K' },
  {
    move: 'insert',
    params: { text: 'K', where: { kind: 'every', slots: 2 } },
    before: 'R l R l',
    ...on16ths,
    after: 'R l K R l K',
  },
  {
    move: 'insert',
    params: { text: 'R L', grid: 630, where: { kind: 'after', slot: 1 } },
    before: 'R l',
    ...on16ths,
    after: 'R - R L l -',
    on: '32nds',
  },
  { move: 'drop', params: { select: chooses({ places: [2] }) }, before: 'R l l R', ...on16ths, after: 'R - l R' },
  {
    move: 'cut',
    params: { select: { is: 'order', of: { is: 'all' }, which: { last: 1 }, within: 'phrase' } },
    before: 'R l l R',
    ...on16ths,
    after: 'R l l',
  },
  { move: 'cut', params: { select: chooses({ limbs: ['K'] }) }, before: 'R K l K R', ...on16ths, after: 'R l R' },
  {
    move: 'insert',
    params: { text: 'K', where: { kind: 'behind', select: chooses({ inRun: 2 }) } },
    before: 'R R L L',
    ...on16ths,
    after: 'R R K L L K',
  },
  {
    move: 'swap',
    params: { select: chooses({ inRun: 2 }), limb: 'K' },
    before: 'R l l R',
    ...on16ths,
    after: 'R l K R',
  },
  {
    move: 'swap',
    params: { select: chooses({ places: [1] }), limb: 'other' },
    before: 'R! l l R',
    ...on16ths,
    after: 'L! l l R',
  },
  {
    move: 'fit',
    params: { space: { beats: 3 }, start: '1', mirrored: false, close: { kind: 'strokes', text: 'R L' } },
    before: 'R l l R K',
    ...on16ths,
    after: 'R l l R K R l l R K R L',
  },
  {
    move: 'fit',
    params: {
      space: { beats: 3 },
      start: '1',
      mirrored: false,
      close: { kind: 'strokes', text: 'R L R L', whole: true },
    },
    before: 'R l l R K',
    ...on16ths,
    after: 'R l l R K R l l R L R L',
  },
  {
    move: 'fit',
    params: { space: { beats: 2 }, start: '1', mirrored: true, close: { kind: 'cut' } },
    before: 'R l K',
    ...on16ths,
    after: 'R l K L r K R l',
  },
  {
    move: 'fit',
    params: { space: { beats: 3 }, start: '1', mirrored: false, close: { kind: 'groups', groups: [5, 4, 3] } },
    before: 'R l l K',
    ...on16ths,
    after: 'R l l K - R l l K R l l',
  },
  { move: 'shift', params: { slots: 1, mode: 'wrap' }, before: 'R l l K', ...on16ths, after: 'K R l l' },
  { move: 'shift', params: { slots: 1, mode: 'push', from: '1&' }, before: 'R l K l', ...on16ths, after: 'R l - K' },
  {
    move: 'shift',
    params: { slots: 0, mode: 'wrap', start: '3' },
    before: 'R l l K',
    ...on16ths,
    after: 'R l l K',
  },
  {
    move: 'restart',
    params: { at: '1&', until: 'bar' },
    before: 'R! l K r L',
    ...on16ths,
    after: 'R! l R! l K',
  },
  { move: 'mirror', params: { feet: false }, before: 'R! l l K', ...on16ths, after: 'L! r r K' },
  {
    move: 'only',
    params: { select: { is: 'beat', beats: [2] } },
    before: 'R! l K r L R K l',
    ...on16ths,
    after: 'L R K l',
  },
  {
    move: 'round',
    params: { select: { is: 'limb', limbs: ['K'] }, text: 'R l l' },
    before: 'K - - K - - K -',
    ...on16ths,
    after: 'K R l K l R K l',
  },
  { move: 'reverse', params: {}, before: 'R! l - K', ...on16ths, after: 'K - l R!' },
  { move: 'linear', params: { give: 'hands' }, before: 'R! l+K R K', ...on16ths, after: 'R! K R K' },
  { move: 'linear', params: { give: 'later' }, before: 'R!+K l - R', ...on16ths, after: 'R! l K R' },
  {
    move: 'grid',
    params: { grid: 630, within: { select: { is: 'beat', beats: [2] }, by: 'order' } },
    before: 'R l l R K L R r',
    ...on16ths,
    after: 'R - l - l - R - K L R r K L R r',
    on: '32nds',
  },
  {
    move: 'grid',
    params: { grid: 630, within: { select: { is: 'beat', beats: [2] }, by: 'place' } },
    before: 'R l l R K L! R r',
    ...on16ths,
    after: 'R - l - l - R - K K L! L R R r r',
    on: '32nds',
  },
  { move: 'grid', params: { grid: 1680, fill: true }, before: 'R l l R', ...on16ths, after: 'R l l', on: 'triplets' },
  {
    move: 'level',
    params: { select: chooses({ places: [1] }), level: 'accent' },
    before: 'R L K',
    ...on16ths,
    after: 'R! L K',
  },
  {
    move: 'level',
    params: { select: chooses({ places: [1] }), level: 'accent', shift: 1 },
    before: 'R L K',
    ...on16ths,
    after: 'R L! K',
  },
  {
    move: 'ornament',
    params: { select: chooses({ counts: ['1&'] }), ornament: 'drag' },
    before: 'R L R L',
    ...on16ths,
    after: 'R L dR L',
  },
  {
    move: 'voice',
    params: { select: chooses({ levels: ['accent'] }), voices: ['crash-right'], under: 'K' },
    before: 'R! l l R',
    ...on16ths,
    after: 'R![right crash]+K! l l R',
  },
  {
    move: 'voice',
    params: { select: chooses({ levels: ['accent'] }), voices: ['ride'], graces: 'stay' },
    before: 'fR! l l R',
    ...on16ths,
    after: 'f[snare]R![ride] l l R',
  },
  {
    move: 'voice',
    params: { select: chooses({ limbs: ['R'] }), voices: ['high-tom', 'floor-tom'] },
    before: 'R l R l',
    ...on16ths,
    after: 'R[high tom] l R[floor tom] l',
  },
  {
    move: 'route',
    params: { select: chooses({}), stations: snareToFloor, order: [], sizes: [3, 3, 2] },
    before: 'R L R L R L R L',
    ...on16ths,
    after: 'R L R L[high tom] R[high tom] L[high tom] R[floor tom] L[floor tom]',
  },
  {
    move: 'route',
    params: { select: chooses({}), stations: snareToFloor, order: [], sizes: [1], by: 'hand' },
    before: 'R L L R R L',
    ...on16ths,
    after: 'R L[high tom] L[high tom] R[floor tom] R[floor tom] L',
  },
  {
    move: 'follow',
    params: { select: chooses({ limbs: ['K'] }), limb: 'R', voice: 'crash-right', level: 'same', busy: 'goes' },
    before: 'R! l l K',
    ...on16ths,
    after: 'R! l l R[right crash]+K',
  },
  {
    move: 'layer',
    params: { limb: 'H', voice: 'hat-foot', level: 'tap', on: { kind: 'grid', grid: 2520 }, clash: 'keep' },
    before: 'R l l K',
    ...on16ths,
    after: 'R+H l l+H K',
  },
  {
    move: 'layer',
    params: { limb: 'H', voice: 'hat-foot', level: 'tap', on: { kind: 'grid', grid: 2520 }, clash: 'drop' },
    before: 'R l l K',
    ...on16ths,
    after: 'H l H K',
  },
  { move: 'pickup', params: { text: 'L K' }, before: 'R l R l', ...on16ths, after: 'R l R l' },
  {
    move: 'land',
    params: { voice: 'crash-right', hand: 'R', kick: true },
    before: 'R L R L',
    meter: '1/4',
    grid: 1260,
    after: 'R L R L R![right crash]+K! - - -',
  },
  {
    move: 'join',
    params: {
      other: { source: { kind: 'typed', text: 'K K R L', meter: '1/4', grid: 1260 }, moves: [] },
      name: 'answer',
    },
    before: 'R l l R',
    meter: '1/4',
    grid: 1260,
    after: 'R l l R K K R L',
  },
  {
    move: 'touch',
    params: {
      edits: [
        { at: 1260, limb: 'L', stroke: null },
        { at: 2520, limb: 'K', stroke: { level: 'accent' } },
      ],
    },
    before: 'R l l R',
    ...on16ths,
    after: 'R - l+K! R',
  },
];
