import { isOutsideTest } from '../diagnose';
import { STAGES, type JobEvent, type JobView, type StageId } from '../job';
import { learnedDuration, type Duration, type DurationPrior } from './durations';
import type { DayStep } from './problem';

/** What a bench does on a job, in its order: the stages, and what runs by itself after them. */
export const STEP_KINDS = [
  'arrive',
  'outside',
  'probe',
  'decide',
  'heat',
  'cool',
  'balls',
  'image',
  'prove',
  'soak',
  'close',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

interface KindOfStep {
  readonly label: string;
  readonly prior: DurationPrior;
  readonly passive?: boolean;
  readonly needs?: readonly string[];
  readonly role?: DayStep['role'];
}

/** Minutes before anything was learned, and what each occupies. Engineering estimates. */
export const STEP_KINDS_OF: Readonly<Record<StepKind, KindOfStep>> = {
  arrive: { label: 'Take the story down', prior: { minutes: 6, sdLog: 0.4 } },
  outside: { label: 'Measure from outside', prior: { minutes: 6, sdLog: 0.5 }, needs: ['supply'] },
  probe: { label: 'Probe', prior: { minutes: 25, sdLog: 0.7 }, needs: ['microscope'] },
  decide: { label: 'Decide', prior: { minutes: 5, sdLog: 0.5 } },
  heat: { label: 'Work under hot air', prior: { minutes: 20, sdLog: 0.5 }, needs: ['hot air'] },
  cool: { label: 'Cools', prior: { minutes: 10, sdLog: 0.2 }, passive: true, needs: ['plate'] },
  balls: { label: 'Site and new part', prior: { minutes: 25, sdLog: 0.5 }, needs: ['hot air', 'microscope'] },
  image: { label: 'Image', prior: { minutes: 20, sdLog: 0.5 }, needs: ['programmer'], role: 'technician' },
  prove: { label: 'Prove', prior: { minutes: 18, sdLog: 0.5 }, needs: ['supply'] },
  soak: { label: 'Soaks', prior: { minutes: 30, sdLog: 0.1 }, passive: true, needs: ['charging place'] },
  close: { label: 'Close', prior: { minutes: 5, sdLog: 0.4 }, role: 'technician' },
};

export type Durations = Readonly<Record<StepKind, Duration>>;

/** A gap of so long between two entries is a pause, not work, minutes. Engineering estimate. */
const PAUSE_MIN = 45;

/** The stage that an entry was made at. */
function stageOf({ body }: JobEvent): StageId | undefined {
  switch (body.kind) {
    case 'story':
    case 'device':
      return 'arrive';
    case 'reading':
      return isOutsideTest(body.measurement) ? 'outside' : 'probe';
    case 'decision':
    case 'route':
      return 'decide';
    case 'heatPlan':
    case 'run':
    case 'partOff':
      return 'heat';
    case 'site':
    case 'inspection':
    case 'padLook':
    case 'flatness':
    case 'partOn':
      return 'balls';
    case 'image':
    case 'imageWritten':
      return 'image';
    case 'trace':
    case 'soak':
      return 'prove';
    case 'close':
      return 'close';
    default:
      return undefined;
  }
}

/** Minutes at each stage of one job, by the times of its entries: what lies between two belongs to the later one; long gaps are pauses. */
export function stageMinutes(events: readonly JobEvent[]): Partial<Record<StageId, number>> {
  const minutes: Partial<Record<StageId, number>> = {};
  events.forEach((event, i) => {
    const stage = stageOf(event);
    const before = events[i - 1];
    if (!stage || !before) return;
    const gap = (Date.parse(event.at) - Date.parse(before.at)) / 60_000;
    if (gap > 0 && gap <= PAUSE_MIN) minutes[stage] = (minutes[stage] ?? 0) + gap;
  });
  return minutes;
}

/** Minutes that closed jobs took for each kind of step, in the order of the jobs; empty for what leaves no entries. */
export function stepsSeen(closed: readonly (readonly JobEvent[])[]): Readonly<Record<StepKind, readonly number[]>> {
  const seen = closed.map(stageMinutes);
  const of = (kind: StepKind): number[] => seen.flatMap((s) => s[kind as StageId] ?? []);
  return Object.fromEntries(STEP_KINDS.map((kind) => [kind, of(kind)])) as Record<StepKind, number[]>;
}

/** What each kind of step takes at this bench, after the jobs that were closed. */
export function learnedDurations(closed: readonly (readonly JobEvent[])[]): Durations {
  const seen = stepsSeen(closed);
  return Object.fromEntries(
    STEP_KINDS.map((kind) => [kind, learnedDuration(STEP_KINDS_OF[kind].prior, seen[kind])]),
  ) as Durations;
}

/** The steps that a job still has before it, each with the chance that it is needed. */
export function stepsAhead(job: JobView, durations: Durations): DayStep[] {
  const from = STAGES.findIndex((s) => s.id === job.next.stage);
  const { hot, image, first } = workAhead(job);
  const chances: Readonly<Record<StepKind, number>> = {
    ...{ arrive: 1, outside: 1, probe: 1, decide: 1, prove: 1, soak: 1, close: 1 },
    ...{ heat: hot, cool: hot, balls: hot, image },
  };
  const isAhead = (kind: StepKind): boolean => {
    const stage = kind === 'cool' ? 'heat' : kind === 'soak' ? 'prove' : kind;
    return STAGES.findIndex((s) => s.id === stage) >= from;
  };
  const steps = STEP_KINDS.filter((kind) => isAhead(kind) && chances[kind] > LEAST_CHANCE).map((kind) =>
    stepOf(kind, durations[kind], chances[kind]),
  );
  // What is next is told as the job tells it; a swollen pack is a danger to everybody in the room.
  const urgent = job.state.story?.pack === 'swollen' && !job.state.packOut;
  const told = steps.map((s, i) => (i === 0 ? { ...s, urgent, words: job.next.title } : s));
  const again = 1 - first;
  if (again < LEAST_CHANCE || job.next.stage === 'close') return told;
  return [
    ...told.slice(0, -1),
    {
      ...stepOf('probe', durations.probe, again),
      id: 'again',
      words: 'Probe once more: it was not that',
      minutes: durations.probe.minutes + durations.heat.minutes,
    },
    told[told.length - 1],
  ];
}

/** Below this a step is not planned for. Engineering estimate. */
const LEAST_CHANCE = 0.03;

function stepOf(kind: StepKind, { minutes, sdLog }: Duration, chance: number): DayStep {
  const { label, passive = false, needs = [], role = 'apprentice' } = STEP_KINDS_OF[kind];
  return { id: kind, words: label, minutes: Math.round(minutes), sdLog, passive, needs: [...needs], role, chance };
}

/** How likely hot air and an image are still needed, and that the first work cures. */
function workAhead({ state, repairs, board, curedChance }: JobView): { hot: number; image: number; first: number } {
  const { decision, doneSince, written } = state;
  if (decision) {
    const { action, ref } = decision;
    const done = ref !== null && doneSince.includes(ref);
    const carries = board.ports.some((p) => p.imagePart === ref);
    return {
      hot: (action === 'replace' || action === 'mend') && !done ? 1 : 0,
      image: (action === 'rewrite' || (action === 'replace' && carries)) && !written ? 1 : 0,
      first: done ? Math.max(curedChance, 0.5) : (repairs[0]?.cureChance ?? 0.7),
    };
  }
  const all = repairs.reduce((sum, r) => sum + r.cureChance, 0);
  if (all === 0) return { hot: 0.5, image: 0.1, first: 0.7 };
  const share = (kinds: readonly string[]): number =>
    repairs.filter((r) => r.targets.some((t) => kinds.includes(t.kind))).reduce((sum, r) => sum + r.cureChance, 0) /
    all;
  return { hot: share(['part', 'rail', 'screw']), image: share(['image']), first: repairs[0].cureChance };
}
