/** Are drills fair? The program's own way, a random one and a fixed checklist over drawn drills. Run with: DRILLS=500 npx tsx bench/drill/fair.ts */
import { demoBoard, DEMO_BOARDS } from '../../demo/files';
import {
  boardMeasurements,
  fixedChecklist,
  Predictor,
  rankRepairs,
  updateBelief,
  type Reading,
} from '../../src/core/diagnose';
import { courseOn, DrillPlay, parOf, scoreOf, type Drill, type DrillStep } from '../../src/core/drill';
import { seededRandom } from '../../src/core/math';
import { note, ratio, section } from '../print';

const DRILLS = Number(process.env.DRILLS ?? 40);
const MOST_STEPS = 90;

type Policy = (play: DrillPlay, random: () => number) => DrillStep;

/** Anything that can be measured or replaced, by chance alone. */
const byChance: Policy = ({ board }, random) => {
  const measurements = boardMeasurements(board);
  if (random() < 0.7) return { do: 'measure', measurement: measurements[Math.floor(random() * measurements.length)] };
  const parts = board.parts;
  return { do: 'work', work: { kind: 'part', ref: parts[Math.floor(random() * parts.length)].ref } };
};

/** Every test in its order, then work in the order of the odds that the story alone gives. */
function byChecklist(play: DrillPlay): Policy {
  const next = fixedChecklist(play.board);
  const belief = updateBelief(play.predictor, [], [...play.drawn.history]);
  const works = rankRepairs(belief, 'closed', new Set()).flatMap((r) => r.targets);
  let taken = 0;
  let worked = 0;
  return ({ board: _ }) => {
    const measurement = next(belief, new Array<Reading>(taken));
    if (measurement && taken < 14) {
      taken++;
      return { do: 'measure', measurement };
    }
    const target = works[worked++];
    return target ? { do: 'work', work: target as Extract<DrillStep, { do: 'work' }>['work'] } : { do: 'giveUp' };
  };
}

function played(predictor: Predictor, drill: Drill, policyOf: (play: DrillPlay) => Policy): DrillPlay {
  const play = new DrillPlay(predictor, drill, false);
  const random = seededRandom(drill.seed + 5);
  const policy = policyOf(play);
  for (let k = 0; k < MOST_STEPS && !play.end; k++) play.take(policy(play, random));
  return play;
}

section(`${DRILLS} drawn drills: the program's own way, a fixed checklist, chance`);
const course = courseOn(DEMO_BOARDS.map((id) => demoBoard(id)));
const scores = { own: [] as number[], checklist: [] as number[], chance: [] as number[] };
let solved = 0;
let unlisted = 0;
for (let k = 0; k < DRILLS; k++) {
  const drill = { ...course[k % course.length], seed: 20_000 + k };
  const predictor = Predictor.of(demoBoard(drill.boardId as (typeof DEMO_BOARDS)[number]));
  const par = parOf(predictor, drill);
  if (drill.faults === 'unlisted') unlisted++;
  if (par.isSolved) solved++;
  scores.own.push(scoreOf(par, par.minutes).score);
  scores.checklist.push(scoreOf(played(predictor, drill, byChecklist), par.minutes).score);
  scores.chance.push(
    scoreOf(
      played(predictor, drill, () => byChance),
      par.minutes,
    ).score,
  );
}
const mean = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0) / list.length;
note(`${unlisted} of them with a fault that no list holds`);
ratio('solved by the program itself', solved / DRILLS, 'at least 0.97');
ratio('mean score, checklist / own', mean(scores.checklist) / mean(scores.own), 'at most 0.6');
ratio('mean score, chance / own', mean(scores.chance) / mean(scores.own), 'at most 0.2');
