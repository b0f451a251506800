import { formatVolt } from '../units';
import { shortWords } from './findings';
import { STAGES } from './stages';
import type { JobView } from './view';

/** The one-page report as plain data: the print page and the PDF show the same. */
export interface JobReport {
  readonly title: string;
  readonly device: string;
  readonly opened: string;
  readonly closed?: string;
  readonly outcome: string;
  /** Why it closed with gates open, where it did. */
  readonly reason?: string;
  readonly cause: string;
  readonly symptom: string;
  readonly findings: readonly { readonly stage: string; readonly words: string }[];
  readonly work: readonly string[];
  readonly rails: readonly {
    readonly rail: string;
    readonly wanted: string;
    readonly before: string;
    readonly now: string;
    readonly state: string;
  }[];
  readonly plugs: readonly { readonly way: string; readonly before: string; readonly now: string }[];
  readonly functions: readonly { readonly what: string; readonly state: string }[];
  readonly gates: readonly { readonly words: string; readonly state: string }[];
}

const day = (iso: string): string => iso.slice(0, 10);

/** What the owner and the shop get on paper. Notes and image names stay out: they may be private. */
export function reportOf(job: JobView): JobReport {
  const { state, proof, board } = job;
  const { closed } = state;
  return {
    title: `Repair report, job ${String(job.number).padStart(4, '0')}`,
    device: `${board.device}, ${board.name}, revision ${board.revision}`,
    opened: day(job.openedAt),
    closed: closed && day(closed.at),
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
      now: r.measuredV === undefined ? 'not measured' : formatVolt(r.measuredV),
      state: { passes: 'passes', fails: 'fails', open: 'open' }[r.state],
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
    gates: proof.gates.map((g) => ({ words: g.words, state: g.holds ? 'holds' : `open: ${g.missing}` })),
  };
}

function workDone({ state, suspects, board }: JobView): string[] {
  const parts = state.replaced
    .filter((r) => !r.includes('/'))
    .map((ref) => `${ref} ${board.parts.find((p) => p.ref === ref)?.what ?? ''} replaced`);
  const image = state.written
    ? [`Image of ${state.written.ref} rewritten, SHA-256 ${state.written.sha256.slice(0, 16)}…, read back the same`]
    : [];
  const found = suspects[0] && suspects[0].p > 0.5 ? [`Found: ${shortWords(suspects[0].words)}`] : [];
  const list = [...found, ...parts, ...image];
  return list.length > 0 ? list : ['Measured only; nothing was changed.'];
}

function beforeRail(job: JobView, rail: string): string {
  const r = job.readings.find((x) => !x.current && x.measurement.kind === 'volts' && x.measurement.rail === rail);
  return r?.value ?? '';
}

function beforePlug(job: JobView, port: string, side: string): string {
  const r = job.readings.find(
    (x) => !x.current && x.measurement.kind === 'usb' && x.measurement.port === port && x.measurement.side === side,
  );
  return r?.value ?? '';
}
