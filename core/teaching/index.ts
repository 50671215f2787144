export { lessonText } from './text';
export { editionSum, nextEdition } from './give';
export { isOwn, lessonBoard, type LessonChange, lessonChanges, takeLesson } from './update';
export { reportOf } from './report';
export { type Beside, besideEachOther, isBehind, reportsByName, type Standing, standingOf } from './beside';
export { breaksWords, changeWords, reportHolds, standingWords } from './words';
