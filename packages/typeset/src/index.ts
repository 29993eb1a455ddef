export { lendFrom, serveBrowser, type LendBrowser } from './browser/chromium';
export { takeInDocument, type TakenDocument, type TakingIn } from './take-in';
