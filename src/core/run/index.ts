export { LONG_OVER_S, OVER_WORDS, abortWords, pauseWords, runCards, type RunCard } from './cards';
export { foldRun, runClock, timedMarks, type RunClock, type RunState, type TimedMark } from './clock';
export { correctRun, flownUntil, type Correction, type RunNow } from './correct';
export { RUN_MARK_WORDS, runEventSchema, type RunEvent, type RunMark, type RunSight } from './schema';
export { knownBefore, type RunKnowledge, type Sight } from './sights';
