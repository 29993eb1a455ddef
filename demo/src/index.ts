export { autumnProgramme } from './autumn-programme';
export { seasonContract } from './season-contract';
export { stagePlan } from './stage-plan';
