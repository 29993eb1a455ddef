/** All that other rooms may import of the words in which a ticket is said. */
export { routeParts, type RouteChange, type RouteChoice, type RouteNumber, type RoutePart } from './route-parts';
export { holds, isUsual, plainOf, sayUsual, usual, type Aspect } from './aspect';
export type { NumberField, Situation } from './situation';
export { aspectOf, DOCUMENT_ASPECTS, JOB_ASPECTS, OFFERED, PAGE_ASPECTS, TRAY } from './aspects';
export { sayBind, sides } from './copies';
export { FORM_QUESTIONS, formNow, patchForm, type FormQuestion } from './form-questions';
export { perSide, turn } from './layout';
export { nameWithoutKind } from './name-without-kind';
export { sayChosen, sayInAny } from './page-words';
export { paperSizes, sayTrayHolding, trayLabels } from './paper';
export { planAt, sayTicket } from './plan-at';
export { sayType } from './paper-type';
export { sayCheaper, saySpentKind, saySpentPaper } from './spend';
export { sayRoute } from './route-words';
export { sentence, type Phrase } from './sentence';
