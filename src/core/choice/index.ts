export { choiceOf, placeToFill, type ChoiceView, type ChoiceWorld, type RouteView } from './choice';
export { fittedChip, judgedByJob, refusedRoute, setAside, withChip } from './set-aside';
