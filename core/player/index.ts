export * from './belief';
export * from './history';
export { gradeOf, newMemory, recall, remembered, type DayGrade, type Memory } from './memory';
