export { IppError } from './client';
export { decodeMessage, IppDecodeError, type Decoded } from './decode';
export { encodeMessage } from './encode';
export { jobAttributes, overriddenNames } from './job-attributes';
export * from './message';
export { PROFILE_ATTRIBUTES, readProfile } from './profile';
export { askJob, askProfile, cancelJob, sendPlan, whyNotOneJob, type JobStatus, type SendInput } from './send';
