export {
  gettingThere,
  IN_SIGHT,
  isItTooMuch,
  onlyApart,
  whatIsAvoided,
  whatWasPractised,
  whereItBreaks,
  whichLimbLags,
  whyRungsFail,
} from './answers';
export { type Break, breaksIn, breaksOf, worstBreak } from './breaks';
export { failKinds, type Fails, failsByTempo } from './fails';
export { type LimbDay, limbsByDay, limbsLately } from './limbs';
export { type Avoided, busier, minutesOf, mostAvoided, type PracticeDay, practiceDays } from './looking-back';
export { type Sitting, sittings } from './sittings';
