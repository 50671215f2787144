export * from './ceiling';
export * from './limb-test';
export * from './paths';
export * from './profile';
export * from './raise';
export * from './travel';
export * from './top';
