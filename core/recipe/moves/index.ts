export { fit, FitParams } from './fit';
export { grid, GridParams } from './grid';
export { insert, InsertParams } from './insert';
export { level, LevelParams } from './level';
export { shift, ShiftParams } from './shift';
export { voice, VoiceParams } from './voice';
