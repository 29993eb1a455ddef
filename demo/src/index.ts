export { autumnProgramme } from './autumn-programme';
export { flyer } from './flyer';
export { grantReturn } from './grant-return';
export { playersNotes } from './players-notes';
export { rehearsalTimetable } from './rehearsal-timetable';
export { seasonContract } from './season-contract';
export { stagePlan } from './stage-plan';
