export * from './answers';
export * from './breaks';
export * from './fails';
export * from './limbs';
export * from './looking-back';
export * from './sittings';
