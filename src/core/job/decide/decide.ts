import type { Board } from '../../board';
import { Predictor, clearedTarget, powerNeedOf } from '../../diagnose';
import type { ReferenceTable } from '../../reference';
import { fail, ok, type Result } from '../../result';
import { refusedPower } from '../assessment/gate';
import { runningSoak, type EventBody, type JobState, type Origin } from '../log';
import { proveJob } from '../proof/proof';
import type { JobCommand } from './command';
import { unknownOnBoard } from './unknown-on-board';

/** What a rule may ask: the board, the job as its events leave it, and what good boards read. */
export interface JobWorld {
  readonly board: Board;
  readonly state: JobState;
  readonly references?: ReferenceTable;
  /** Whether simulated values may be kept: in training jobs, and in the demo world. */
  readonly simulators?: boolean;
}

/** An event that may be appended. */
export interface DecidedEvent {
  readonly body: EventBody;
  readonly replaces?: number;
  readonly origin?: Origin;
}

/**
 * Every rule of what may happen to a job, at one door: the events that a command leads to, or why it may not happen.
 * Pure: nothing is stored here.
 */
export function decide(world: JobWorld, command: JobCommand): Result<DecidedEvent[]> {
  if (command.do === 'undoLast') return undoLast(world.state);
  if (command.do === 'weigh' || command.do === 'weighWork') return ok([]);
  const { body, origin } = command;
  if (origin?.kind === 'simulated' && !world.simulators)
    return fail('Expected what was really seen: simulated values are kept in training jobs only.');
  const refused = refusalOf(world, body);
  if (refused !== undefined) return fail(refused);
  const replaces = command.replaces ?? (body.kind === 'story' ? storyToCorrect(world.state) : undefined);
  if (replaces !== undefined && !world.state.live.some((e) => e.seq === replaces))
    return fail(`Expected an entry that counts to correct; there is no number ${replaces} among them.`);
  return ok([{ body, ...(replaces !== undefined && { replaces }), ...(origin && { origin }) }]);
}

function undoLast({ undoable }: JobState): Result<DecidedEvent[]> {
  return undoable === undefined
    ? fail('Nothing to undo: the story stays.')
    : ok([{ body: { kind: 'undo', seq: undoable.seq } }]);
}

/** A later story corrects the one with which the job came in, or came back. */
function storyToCorrect({ live }: JobState): number | undefined {
  const cameBack = live.findLastIndex((e) => e.body.kind === 'reopen');
  return live.slice(cameBack + 1).find((e) => e.body.kind === 'story')?.seq;
}

/** Damage of the board is mended once; joints, contacts and software can be worked on again. */
const isOnce = (board: Board, what: string): boolean =>
  ['rail', 'screw'].includes(clearedTarget(board, what)?.kind ?? '');

/** Why something may not happen, or nothing. */
function refusalOf(world: JobWorld, body: EventBody): string | undefined {
  const { board, state } = world;
  const unknown = unknownOnBoard(board, body);
  if (unknown !== undefined) return unknown;
  switch (body.kind) {
    case 'reading':
      return refusedReading(state, body);
    case 'partOff':
      return state.absent.includes(body.ref) ? `${body.ref} is off the board already.` : undefined;
    case 'partOn':
      return state.absent.includes(body.ref)
        ? undefined
        : `${body.ref} is on the board; expected one that was taken off.`;
    case 'shield':
      return state.removedShields.includes(body.id) === body.off
        ? `${body.id} is ${body.off ? 'off' : 'on'} already.`
        : undefined;
    case 'mended':
      return isOnce(board, body.what) && state.replaced.includes(body.what)
        ? `${body.what} is mended already.`
        : undefined;
    case 'soak':
      return refusedSoak(state, body);
    case 'close':
      return refusedClosing(world, body);
    case 'reopen':
      return state.closed ? undefined : 'Expected a closed job; this one is open.';
    case 'undo':
      return body.seq === state.undoable?.seq
        ? undefined
        : 'Expected the last entry that counts; only it is taken back.';
    case 'quote':
      return body.state === 'sent' || state.quote
        ? undefined
        : `Expected a quote that was sent before it is ${body.state}.`;
    case 'delivery':
      return body.byAt !== null || state.delivery?.byAt
        ? undefined
        : 'Nothing is waited for. Expected what is, first: awaits 2026-12-02 donor board.';
    case 'heatPlan':
      return body.shown.breaks.length === 0 || body.reason
        ? undefined
        : 'This plan breaks a limit. Expected why it is kept all the same: keep because the board is a donor.';
    case 'story':
    case 'access':
    case 'pack':
    case 'decision':
    case 'run':
    case 'image':
    case 'picture':
    case 'device':
    case 'note':
    case 'promise':
    case 'trace':
    case 'capture':
    case 'lifted':
    case 'site':
    case 'flatness':
    case 'inspection':
    case 'padLook':
    case 'route':
    case 'imageWritten':
      return undefined;
  }
}

type Body<K extends EventBody['kind']> = Extract<EventBody, { kind: K }>;

/** No reading puts power on a port that looked doubtful. */
function refusedReading(state: JobState, { measurement }: Body<'reading'>): string | undefined {
  const power = powerNeedOf(measurement);
  return power.kind === 'port' ? refusedPower(state, power.port) : undefined;
}

function refusedSoak({ soaks }: JobState, { act }: Body<'soak'>): string | undefined {
  const isRunning = runningSoak(soaks) !== undefined;
  if (act === 'start') return isRunning ? 'Expected no soak that runs; end it first: soak off.' : undefined;
  return isRunning ? undefined : 'Expected a soak that runs; none does. Begin one: soak 30.';
}

/** As repaired only when all gates hold, or with a reason that the report prints. */
function refusedClosing({ board, state, references }: JobWorld, body: Body<'close'>): string | undefined {
  if (body.outcome !== 'repaired' || body.reason) return undefined;
  const { allHold, gates } = proveJob(Predictor.of(board), state, references);
  if (allHold) return undefined;
  const missing = gates.filter((g) => !g.holds).map((g) => `${g.label.toLowerCase()} (${g.missing})`);
  return `Expected all gates to hold, or a reason. Not yet: ${missing.join('; ')}.`;
}
