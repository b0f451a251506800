import { isPowered, jointStem, runningSoak, type JobView, type JointWalk } from '@/core/job';

/** What the Prove screen can show; each has an address of its own. */
export const VIEWS = [
  ['unpowered', 'Before power'],
  ['rails', 'Rails'],
  ['plugs', 'Plug ways'],
  ['functions', 'Functions, soak'],
] as const;
export type View = (typeof VIEWS)[number][0];

export interface ProveSearch {
  readonly view?: string;
  readonly part?: string;
  readonly port?: string;
}

export interface ProvePlace {
  readonly view: View;
  /** The placed part whose joints are walked; none where nothing was placed. */
  readonly walk?: JointWalk;
  /** The port whose ways are shown. */
  readonly portId: string;
  /** In a walk: what is typed before a value that stands alone. */
  readonly stem?: string;
}

/** Which view an address asks for; what it leaves out is what is due. */
export function provePlace(job: JobView, { view: asked, part, port }: ProveSearch): ProvePlace {
  const view = VIEWS.find(([id]) => id === asked)?.[0] ?? dueView(job);
  const { joints, shorts } = job.proof;
  const walk =
    joints.find((w) => w.ref === part?.toUpperCase()) ?? joints.find((w) => w.next !== undefined) ?? joints[0];
  const isWalked = view === 'unpowered' && shorts.every((s) => s.gone === true);
  return {
    view,
    walk,
    portId: job.board.ports.find((p) => p.id === port?.toUpperCase())?.id ?? job.board.ports[0].id,
    stem: isWalked && walk?.next ? jointStem(walk.ref, walk.next.pin) : undefined,
  };
}

function dueView(job: JobView): View {
  const { shorts, joints, rails, plugs } = job.proof;
  if (runningSoak(job.state.soaks)) return 'functions';
  if (shorts.some((s) => s.gone !== true) || joints.some((w) => w.bad.length > 0)) return 'unpowered';
  if (joints.some((w) => w.next !== undefined) && !isPowered(job.proof)) return 'unpowered';
  if (!rails.allPass) return 'rails';
  return plugs.some((p) => p.healthy !== true) ? 'plugs' : 'functions';
}

export const proveHref = (view: View, more: Readonly<Record<string, string>> = {}): string =>
  `?${new URLSearchParams({ view, ...more })}`;
