export * from './belief';
export { evidenceOf } from './evidence';
export * from './history';
export { gradeOf, newMemory, recall, remembered, type DayGrade, type Memory } from './memory';
