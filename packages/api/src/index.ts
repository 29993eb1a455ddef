export * from './bodies';
export { describeApi } from './openapi';
export { OPERATIONS, type DeliveryAct, type Operation } from './operations';
export { PROBLEMS, type ProblemCode } from './problems';
export * from './records';
