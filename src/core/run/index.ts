export { LONG_OVER_S, OVER_WORDS, abortWords, pauseWords, runCards, type RunCard } from './cards';
export { foldRun, runClock, timedMarks, type RunClock, type RunState, type TimedMark } from './clock';
export { RUN_MARK_WORDS, runEventSchema, type RunEvent, type RunMark } from './schema';
