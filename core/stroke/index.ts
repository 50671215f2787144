export * from './level';
export * from './ornament';
export * from './limb';
export * from './stroke';
export * from './stroke-types';
export * from './sung';
export * from './text';
export * from './voice';
