declare module 'music-tempo' {
  export default class MusicTempo {
    constructor(samples: Float32Array, settings?: { timeStep?: number; hopSize?: number });
    readonly tempo: number | string;
    readonly beats: readonly number[];
  }
}
