export {
  type GivenItem,
  type GivenLesson,
  type KeptLesson,
  KeptLessonSchema,
  type KeptReport,
  type Lesson,
  LESSON_FORMAT,
  LESSON_LIMITS,
  LESSON_VERSION,
  type LessonItem,
  LessonSchema,
  type Question,
  type Report,
  REPORT_FORMAT,
  REPORT_VERSION,
  ReportSchema,
  type TakenLesson,
} from './schema';
export { givenRow, isNewer, keptLessons, laterLesson, reportRow, takenBefore, takenRow } from './rows';
export { lessonText } from './text';
export { editionSum, nextEdition } from './give';
export { isOwn, lessonBoard, type LessonChange, lessonChanges, takeLesson } from './update';
export { reportOf } from './report';
export { type Beside, besideEachOther, isBehind, type Standing, standingOf } from './beside';
export { breaksWords, changeWords, reportHolds, standingWords } from './words';
