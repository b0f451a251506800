import type { RailId } from '../../identities';
import { unsteadyLabels } from '../../diagnose';
import { dayIn, formatMinutes, formatVolt, moneyIn, NOWHERE, type BenchPlace } from '../../units';
import { originsSummary } from '../log';
import { DEFAULT_REPORT_WORDS, filledIn, type ReportWords } from './report-words';
import { shortWords } from '../assessment/findings';
import { mendedLabel } from '../closeout/mended';
import { traceAt } from '../assessment/outside';
import { partsUsed } from '../closeout/parts-used';
import type { JobReport, ReportTrace } from './report-schema';
import type { PriorClosureView } from '../assessment/past';
import { STAGES } from '../assessment/stages';
import type { JobView } from '../assessment/view';

/** So many points of a trace are printed: more than that no paper shows. */
const PRINTED_POINTS = 150;

export interface ReportOptions {
  readonly words?: ReportWords;
  /** Puts the notes in; image names stay out all the same. */
  readonly withPrivate?: boolean;
  /** Where the bench stands: its days and its money. */
  readonly place?: BenchPlace;
  /** The seal of the job's newest entry. */
  readonly seal?: string;
}

/** What the owner and the shop get on paper. Notes and image names stay out unless asked for: they may be private. */
export function reportOf(
  job: JobView,
  { words = DEFAULT_REPORT_WORDS, withPrivate = false, place = NOWHERE, seal }: ReportOptions = {},
): JobReport {
  const { state, proof, board } = job;
  const { closed } = state;
  const facts = { job: String(job.number).padStart(4, '0'), device: board.device };
  return {
    training: job.training,
    shop: words.shop,
    title: filledIn(words.heading, facts),
    closing: filledIn(words.closing, facts),
    parts: partsUsed(board, state, job.practice).map(({ ref, what, typeId, offer }) => ({
      what: `${ref} ${what}`,
      from: [typeId, offer].filter(Boolean).join(', '),
    })),
    past: job.priorClosures.map((past) => pastWords(past, place)),
    traces: tracesOf(job),
    bill: billOf(job, words, place),
    ...(seal && { seal }),
    origins: originsSummary(job.readings.map((r) => r.origin)),
    pictures: state.pictures.map(({ sha256, words: shows }) => ({ sha256, words: shows })),
    ...(withPrivate && { notes: [...state.notes] }),
    device: `${board.device}, ${board.name}, revision ${board.revision}`,
    opened: dayIn(place, job.openedAt),
    closed: closed && dayIn(place, closed.at),
    outcome: closed
      ? { repaired: 'Repaired', stopped: 'Stopped', returned: 'Returned as it came' }[closed.outcome]
      : 'Open',
    reason: closed?.reason,
    cause: closed?.cause || 'Not stated.',
    symptom: state.story?.symptom ?? 'Not recorded.',
    findings: STAGES.filter(({ id }) => id !== 'close' && job.findings[id] !== '').map(({ id, name }) => ({
      stage: name,
      words: job.findings[id],
    })),
    work: workDone(job),
    rails: proof.rails.rails.map((r) => ({
      rail: r.rail.id,
      wanted: `${formatVolt(r.minV)} to ${formatVolt(r.maxV)}`,
      before: beforeRail(job, r.rail.id),
      now:
        r.measuredV === undefined
          ? 'not measured'
          : [formatVolt(r.measuredV), ...unsteadyLabels(r.unsteady ?? {})].join(', '),
      state: { passes: 'passes', fails: 'fails', untested: 'not measured' }[r.state],
    })),
    plugs: proof.plugs.map((p) => ({
      way: board.ports.length > 1 ? `${p.port}, ${p.side} way` : `${p.side} way`,
      before: beforePlug(job, p.port, p.side),
      now: p.volts === undefined ? 'not tried' : `${formatVolt(p.volts)}, ${p.amps!.toFixed(2)} A`,
    })),
    functions: proof.functions.map((f) => ({
      what: f.what,
      state: f.works === undefined ? 'not tried' : f.works ? 'works' : 'fails',
    })),
    gates: proof.gates.map((g) => ({ words: g.label, state: g.holds ? 'holds' : `not met: ${g.missing}` })),
  };
}

function pastWords({ closedAt, reopenedAt, daysGood, mended, outcome }: PriorClosureView, place: BenchPlace): string {
  const work = mended.join(', ') || 'nothing was changed';
  return `Closed ${dayIn(place, closedAt)} as ${outcome} (${work}); came back ${dayIn(place, reopenedAt)}, after ${daysGood} days.`;
}

function tracesOf({ board, state }: JobView): ReportTrace[] {
  return board.ports.flatMap((port) =>
    (['before', 'now'] as const).flatMap((time) =>
      (['A', 'B'] as const).flatMap((side): ReportTrace[] => {
        const kept = traceAt(state, port.id, side, time);
        if (!kept) return [];
        const step = Math.max(1, Math.ceil(kept.timesS.length / PRINTED_POINTS));
        const thin = (values: readonly number[]): number[] => values.filter((_, i) => i % step === 0);
        const way = board.ports.length > 1 ? `${port.id}, ${side} way` : `${side} way`;
        return [{ way, time, timesS: thin(kept.timesS), amps: thin(kept.amps) }];
      }),
    ),
  );
}

function billOf({ state: { closed } }: JobView, { money }: ReportWords, place: BenchPlace): JobReport['bill'] {
  return [
    ...(closed?.minutes === undefined ? [] : [{ what: 'Bench work', figure: formatMinutes(closed.minutes) }]),
    ...(closed?.price === undefined
      ? []
      : [{ what: 'Price', figure: `${money} ${moneyIn(place, closed.price)}`.trim() }]),
  ];
}

function workDone({ state, suspects, board, proof }: JobView): string[] {
  const parts = [...new Set(state.replaced)]
    .filter((r) => !r.endsWith('/image'))
    .map((ref) => {
      const chip = state.route?.ref === ref && state.route.typeId !== 'none' ? ` by ${state.route.typeId}` : '';
      return `${mendedLabel(board, ref)}${chip}`;
    });
  const seated = proof.joints
    .filter((w) => w.readCount > 0)
    .map((w) => `${w.ref}: ${w.readCount - w.bad.length} of ${w.joints.length} joints read well`);
  const image = state.written
    ? [`Image of ${state.written.ref} rewritten, SHA-256 ${state.written.sha256.slice(0, 16)}…, read back the same`]
    : [];
  const found = suspects[0] && suspects[0].p > 0.5 ? [`Found: ${shortWords(suspects[0].label)}`] : [];
  const list = [...found, ...parts, ...image, ...seated];
  return list.length > 0 ? list : ['Measured only; nothing was changed.'];
}

function beforeRail(job: JobView, rail: RailId): string {
  const r = job.readings.find((x) => !x.current && x.measurement.kind === 'railVoltage' && x.measurement.rail === rail);
  return r?.value ?? '';
}

function beforePlug(job: JobView, port: string, side: string): string {
  const r = job.readings.find(
    (x) =>
      !x.current && x.measurement.kind === 'usbMeter' && x.measurement.port === port && x.measurement.side === side,
  );
  return r?.value ?? '';
}
