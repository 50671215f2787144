/** A value of a chart that can be pointed at and read. Places in px. */
export interface Mark {
  readonly x: number;
  readonly y: number;
  /** How it is drawn: a disc, a ring, or a bar down to the base. */
  readonly as: 'disc' | 'ring' | 'bar';
  /** Width and height of a bar, px. */
  readonly width?: number;
  readonly height?: number;
  /** Which of the chart's colours it has. */
  readonly tone: Tone;
  /** Its value with its unit, as it is read. */
  readonly words: string;
}

/** Colours by what they mean; a shape or a pattern says it too. */
export type Tone = 'accent' | 'mark' | 'quiet' | 'skin' | 'metal' | 'wood' | 'foot' | 'good';

/** A chart that is worked out: its component only draws it. */
export interface ChartModel {
  readonly width: number;
  readonly height: number;
  /** What the axes are, with their units. */
  readonly xName: string;
  readonly yName: string;
  readonly xTicks: readonly { readonly x: number; readonly text: string }[];
  readonly yTicks: readonly { readonly y: number; readonly text: string }[];
  readonly areas: readonly { readonly path: string; readonly tone: Tone }[];
  readonly lines: readonly { readonly path: string; readonly tone: Tone; readonly dashed: boolean }[];
  /** Straight lines with a name at their end. */
  readonly rules: readonly {
    readonly x1: number;
    readonly y1: number;
    readonly x2: number;
    readonly y2: number;
    readonly tone: Tone;
    readonly text: string;
  }[];
  /** From left to right. */
  readonly marks: readonly Mark[];
  /** What the colours mean. */
  readonly keys: readonly { readonly tone: Tone; readonly as: Mark['as'] | 'line' | 'area'; readonly text: string }[];
}

export const MARGIN = Object.freeze({ top: 30, right: 84, bottom: 40, left: 52 });
export const CHART_HEIGHT = 280;
