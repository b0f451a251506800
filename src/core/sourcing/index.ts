export { outlookOf, type Outlook } from './outlook';
export type { Supplies } from './offers';
export { NEEDED_ELSEWHERE, queueProblem, servedBy, wayKey, type QueueNeed } from './queue';
export { goes, routesFor, type Route, type SourcingSettings } from './routes';
export { sourcingDefaults, sourcingPracticeSchema, strapValues, type SourcingPractice } from './settings';
