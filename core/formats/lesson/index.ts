export { lessonCode, readLesson, readLessonCode, readReport } from './lesson';
