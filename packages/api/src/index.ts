export * from './bodies';
export { describeApi } from './openapi';
export {
  addressOf,
  type AnswerOf,
  type BodyOf,
  type Operation,
  type ParamsOf,
  type QueryOf,
  refusedBy,
} from './operation';
export { OPERATIONS, type Answers, type Bodies, type SendingAct, type OperationName } from './operations';
export { PROBLEMS, type ProblemCode } from './problems';
export * from './output-records';
export * from './printer-records';
export type { Described } from './record';
export * from './records';
export * from './spend-records';
