import type { Board } from '../../board';
import { findingsLabel, powerNeedOf, type LookFinding, type Measurement } from '../../diagnose';
import type { JobState } from '../log';

/** Whether a port may be powered. */
export type PortGate =
  | { readonly state: 'unlooked' }
  | { readonly state: 'sound' }
  | { readonly state: 'doubtful'; readonly seen: readonly LookFinding[]; readonly message: string };

/** What to look for before power, and what to do where it is found. Source: common practice, no published source. */
export const LOOK_ADVICE: Readonly<Record<LookFinding, string>> = {
  pins: 'Straighten nothing under power: replace the connector, or walk its pins first.',
  tongue: 'Replace the connector.',
  corrosion: 'Clean it, dry it, look again; then walk its pins before any power.',
  liquid: 'Open up, pack out, clean and dry the board before any power.',
  shell: 'Resolder or replace the shell; check the joints of the contacts.',
  debris: 'Pick it out with something that does not conduct, then look again.',
};

/** The gate of a port: its newest look counts, unless the connector was replaced since; a port that had power passed. */
export function portGate(state: JobState, portId: string): PortGate {
  const renewed = state.replaced.includes(portId);
  const looks = state.readings.filter(
    (r) =>
      r.measurement.kind === 'visualInspection' &&
      r.measurement.ref === portId &&
      (!renewed || r.replaced.includes(portId)),
  );
  const last = looks[looks.length - 1];
  if (last?.value.kind === 'fail') {
    const seen = last.value.seen ?? [];
    return { state: 'doubtful', seen, message: findingsLabel(seen) || 'damaged' };
  }
  const powered = state.readings.some((r) => r.measurement.kind === 'usbMeter' && r.measurement.port === portId);
  return { state: last || powered ? 'sound' : 'unlooked' };
}

/** Why power at a port is refused, or nothing. */
export function refusedPower(state: JobState, portId: string): string | undefined {
  const gate = portGate(state, portId);
  if (gate.state !== 'doubtful') return undefined;
  return `Expected a sound port before power; ${portId} looked doubtful (${gate.message}). Make it good, then type: look ${portId.toLowerCase()} good.`;
}

/** True for tests that put power on a port that is doubtful, or has not been looked at. */
export function isGated(board: Board, state: JobState, m: Measurement): boolean {
  const power = powerNeedOf(m);
  switch (power.kind) {
    case 'port':
      return portGate(state, power.port).state !== 'sound';
    case 'anyPort':
      return board.ports.every((p) => portGate(state, p.id).state === 'doubtful');
    case 'none':
    case 'injected':
      return false;
  }
}
