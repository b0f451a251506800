import type { Port } from '@/core/board';
import { portGate, walkPort, walkStem, type JobView } from '@/core/job';

/** What the Outside screen can show; each has an address of its own. */
export const VIEWS = [
  ['look', 'Look'],
  ['meter', 'The meter'],
  ['trace', 'Traces'],
  ['talk', 'Conversation'],
  ['walk', 'Port walk'],
] as const;
export type View = (typeof VIEWS)[number][0];

export interface OutsideSearch {
  readonly view?: string;
  readonly port?: string;
}

export interface OutsidePlace {
  readonly view: View;
  readonly port: Port;
  /** In a walk: what is typed before a value that stands alone. */
  readonly stem?: string;
}

/** Which view of which port an address asks for; what it leaves out follows from the job. */
export function outsidePlace(job: JobView, search: OutsideSearch): OutsidePlace {
  const { ports } = job.board;
  const port = ports.find((p) => p.id === search.port?.toUpperCase()) ?? portOfInterest(job);
  const asked = VIEWS.find(([id]) => id === search.view)?.[0];
  const view = asked ?? (portGate(job.state, port.id).state === 'sound' ? 'meter' : 'look');
  const next = view === 'walk' ? walkPort(job.board, job.state, job.references, port.id).next : undefined;
  return { view, port, stem: next && walkStem(job.board, port.id, next.pin) };
}

export const outsideHref = (view: View, portId: string): string => `?view=${view}&port=${portId}`;

/** The port with a reading that fits badly, else one that was read, else one not yet looked at is left to the first. */
function portOfInterest(job: JobView): Port {
  const { ports } = job.board;
  const readings = (port: Port) =>
    job.readings.filter((r) => r.current && r.measurement.kind === 'usbMeter' && r.measurement.port === port.id);
  const odd = ports.find((p) => readings(p).some((r) => r.meaning.state === 'bad'));
  return odd ?? ports.find((p) => readings(p).length > 0) ?? ports[0];
}
