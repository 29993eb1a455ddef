export { openBrowser, type OpenBrowser } from './browser/chromium';
export type { LayInBrowser } from './browser/laying';
export { BrowserGone, layThrough, serveLaying } from './browser/laying-socket';
export { rehearseReading } from './rehearse';
export { takeInDocument, type TakenDocument, type TakingIn } from './take-in';
