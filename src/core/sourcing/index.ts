export { outlookOf, type Outlook, type PlannedRepair } from './outlook';
export { offersOf, type Offer, type OfferKind, type Supplies } from './offers';
export { NEEDED_ELSEWHERE, needIdOf, queueProblem, servedBy, type Queue, type QueueNeed } from './queue';
export { OPEN_DONOR_MINUTES, goes, routesFor, type Route, type SourcingSettings } from './routes';
export {
  STRAP_SERIES,
  STRAP_TOLERANCE,
  sourcingDefaults,
  sourcingPracticeSchema,
  strapValues,
  type SourcingPractice,
} from './settings';
