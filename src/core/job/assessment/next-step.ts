import type { PartRef } from '../../identities';
import { partByRef, type Board } from '../../board';
import {
  STOP_WORDS,
  clearedTarget,
  isOutsideTest,
  measurementTitle,
  repairLabel,
  targetKey,
  workLabel,
  type BoardTarget,
} from '../../diagnose';
import { formatChance, formatInHundred } from '../../units';
import { isOutside, type JobAnalysis, type WorkNow } from './analysis';
import { takenOnBoardAsIs, type EventBody, type JobState } from '../log';
import type { JobProof } from '../proof/proof';
import type { ProofOrder } from '../../proof';
import type { StageId } from './stages';

export interface NextStep {
  readonly stage: StageId;
  /** An instruction, as a headline. */
  readonly title: string;
  readonly minutes?: number;
}

/** From this share of the belief on, nothing on the board is at fault. Engineering estimate. */
const SURE_ENOUGH = 0.9;

type DecisionAction = Extract<EventBody, { kind: 'decision' }>['action'];

/** What to do next on a job. One rule a line, in the order of the bench. */
export function nextStep(
  board: Board,
  state: JobState,
  analysis: JobAnalysis,
  proof: JobProof,
  order: ProofOrder,
): NextStep {
  if (state.closed) return { stage: 'close', title: 'Closed' };
  if (!state.story) return { stage: 'arrive', title: 'Take the story down' };
  if (state.story.pack === 'swollen' && !state.packOut)
    return { stage: 'arrive', title: 'Swollen pack out first, into the fire-safe box' };
  if (state.decision?.action === 'stop') return { stage: 'close', title: 'Close: stopped' };
  return state.decision ? afterDecision(board, state, analysis, proof, order) : beforeDecision(board, state, analysis);
}

function beforeDecision(board: Board, state: JobState, analysis: JobAnalysis): NextStep {
  const [top] = analysis.suspects;
  const [test] = analysis.tests;
  const { workNow } = analysis;
  if (analysis.tooDear) {
    const { cost, worth } = analysis.tooDear;
    return { stage: 'decide', title: `Advise stopping: about ${Math.round(cost)} still to spend, worth ${worth}` };
  }
  const { move } = analysis.standing;
  if (move.kind === 'again' || (move.kind === 'stop' && move.reason === 'unlisted'))
    return moveTitle(board, state, analysis)!;
  if (workNow) return { stage: 'decide', title: workTitle(workNow), minutes: workNow.repair.minutes };
  if (test && !(isOutside(top) && top.p >= SURE_ENOUGH)) {
    return { stage: test.access === 'closed' ? 'outside' : 'probe', title: test.title, minutes: test.minutes };
  }
  if (isOutside(top))
    return {
      stage: 'decide',
      title: `Nothing on this board, ${formatChance(top.p)}: try another charger, cable, pack`,
    };
  if (!partByRef(board, top.ref)) return { stage: 'decide', title: `Decide: ${top.label}, ${formatChance(top.p)}` };
  return { stage: 'decide', title: `Decide on ${top.ref}, ${formatChance(top.p)}` };
}

/** Below this chance of a cure, work before the fault is known is called what it is. Engineering estimate. */
const BLIND_BELOW = 0.8;

const workTitle = ({ repair: { label, cureChance } }: WorkNow): string =>
  cureChance < BLIND_BELOW
    ? `${label} blind: cures ${formatInHundred(cureChance)}, and no test is cheaper`
    : `${label}: cures ${formatInHundred(cureChance)}`;

function afterDecision(
  board: Board,
  state: JobState,
  analysis: JobAnalysis,
  proof: JobProof,
  order: ProofOrder,
): NextStep {
  const { action, ref } = state.decision!;
  if (action === 'mend' && ref && !state.doneSince.includes(ref))
    return { stage: 'heat', title: mendTitle(board, ref) };
  const small = ref === null ? undefined : smallWork(action, ref);
  if (small && !state.doneSince.includes(small.key)) return { stage: 'prove', title: small.title };
  if (action === 'rewrite' && !state.written) return { stage: 'image', title: `Prepare and write the image of ${ref}` };
  if (action === 'replace' && ref && !state.doneSince.includes(ref)) return replaceStep(board, state, ref);
  if (ref && board.ports.some((p) => p.imagePart === ref) && !state.written) {
    return { stage: 'image', title: `Write the image into the new ${ref}` };
  }
  const [failure] = proof.rails.failures;
  if (failure)
    return {
      stage: 'probe',
      title: `${failure.rail} fails: back to probing ${failure.suspects.slice(0, 3).join(', ')}`,
    };
  const move = stillFails(proof) ? moveTitle(board, state, analysis) : undefined;
  if (move) return move;
  if (!proof.allHold) return { stage: 'prove', title: proveTitle(proof, order) };
  return { stage: 'close', title: 'Close as repaired' };
}

/** Work that needs no part: what it is called, and the key under which it is kept. */
function smallWork(action: DecisionAction, ref: PartRef): { readonly key: string; readonly title: string } | undefined {
  switch (action) {
    case 'touchUp':
      return {
        key: targetKey({ kind: 'joints', ref }),
        title: `Touch up the joints of ${ref}, then enter "touched ${ref.toLowerCase()}"`,
      };
    case 'clean':
      return {
        key: targetKey({ kind: 'contacts', ref }),
        title: `Clean the contacts of ${ref}, then enter "cleaned ${ref.toLowerCase()}"`,
      };
    case 'restore':
      return { key: targetKey({ kind: 'software' }), title: 'Restore what the device runs on, then enter "restored"' };
    default:
      return undefined;
  }
}

/** True where the complaint, or a part of it, was seen again on the board as it is now. */
const stillFails = (proof: JobProof): boolean =>
  proof.plugs.some((p) => p.healthy === false) || proof.functions.some((f) => f.works === false);

/** A reading that is to be taken once more. */
const againTitle = (title: string): string => `Take again before anything is replaced: ${title}`;

/** What the readings ask for next, work done or not. */
function moveTitle(board: Board, state: JobState, { standing, tests }: JobAnalysis): NextStep | undefined {
  const { move } = standing;
  switch (move.kind) {
    case 'test': {
      const [test] = tests;
      return (
        test && { stage: test.access === 'closed' ? 'outside' : 'probe', title: test.title, minutes: test.minutes }
      );
    }
    case 'again': {
      const { measurement } = state.readings[move.reading];
      return {
        stage: isOutsideTest(measurement) ? 'outside' : 'probe',
        title: againTitle(measurementTitle(board, measurement)),
      };
    }
    case 'work':
      return { stage: 'decide', title: `${workLabel(move.need.target)}: cures ${formatInHundred(move.cureChance)}` };
    case 'stop':
      return { stage: 'decide', title: STOP_WORDS[move.reason] };
  }
}

const mendTitle = (board: Board, ref: PartRef): string => {
  const target = clearedTarget(board, ref) as BoardTarget | undefined;
  return `${target ? repairLabel(target) : `Mend ${ref}`}, then enter "mended ${ref.toLowerCase()}"`;
};

function replaceStep(board: Board, state: JobState, ref: PartRef): NextStep {
  const what = `${ref} ${partByRef(board, ref)?.what ?? ''}`.trim();
  if (!state.heatPlan || state.heatPlan.plan.partRef !== ref)
    return { stage: 'heat', title: `Plan the heat for ${what}` };
  if (!state.absent.includes(ref)) return { stage: 'heat', title: `Take ${ref} off, then measure again` };
  const measuredSince = state.readings.some((r) => takenOnBoardAsIs(state, r));
  if (!measuredSince) return { stage: 'probe', title: `${ref} is off: is the fault gone with it?` };
  if (state.site?.ref !== ref) return { stage: 'balls', title: `Make the site of ${ref} ready` };
  return { stage: 'balls', title: `Place the new ${ref}` };
}

/** True once anything was read with power on the board as it is now. */
export const isPowered = ({ rails, plugs, functions }: JobProof): boolean =>
  rails.rails.some((r) => r.state !== 'untested') ||
  plugs.some((p) => p.healthy !== undefined) ||
  functions.some((f) => f.works !== undefined);

function proveTitle(proof: JobProof, order: ProofOrder): string {
  const short = proof.shorts.find((s) => s.gone !== true);
  if (short) return `${short.net} to ground before power: is the short gone?`;
  const [walk] = proof.joints.filter((w) => w.bad.length > 0);
  if (walk) return `Joint ${walk.bad[0].pin} of ${walk.ref} reads badly: touch it up, read it again`;
  const untouched = proof.joints.find((w) => w.next !== undefined);
  if (untouched && !isPowered(proof)) return `Touch ${untouched.ref} joint by joint, before power`;
  if (proof.rails.next) return `Measure ${proof.rails.next}`;
  const plug = proof.plugs.find((p) => p.healthy === undefined);
  if (plug) return `Plug ${plug.port}, ${plug.side} way`;
  const failed = proof.functions.find((f) => f.works === false);
  if (failed) return `${failed.what} fails: back to probing`;
  const fn = proof.functions.find((f) => f.id === order.tests[0]?.id);
  return fn ? `Try: ${fn.what}` : 'Gates not yet met: see Close';
}
