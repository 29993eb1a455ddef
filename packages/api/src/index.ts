export * from './bodies';
export { describeApi } from './openapi';
export type { Operation } from './operation';
export { OPERATIONS, type DeliveryAct } from './operations';
export { PROBLEMS, type ProblemCode } from './problems';
export * from './records';
