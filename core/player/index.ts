export * from './belief';
export * from './days';
export { evidenceOf } from './evidence';
export * from './history';
export { gradeOf, newMemory, recall, remembered, type DayGrade, type Memory } from './memory';
export * from './pace';
export * from './share';
