import type { Board } from '../../board';
import { measurementId } from '../../diagnose';
import {
  behindPin,
  expectedDrop,
  judgePin,
  nextPin,
  portPins,
  type PinValue,
  type PinVerdict,
  type PortPin,
} from '../../port';
import type { ReferenceTable } from '../../reference';
import type { JobState } from '../log';

/** One contact in the walk. */
export interface WalkPin extends PortPin {
  readonly value?: PinValue;
  readonly verdict?: PinVerdict;
}

/** The walk over the contacts of a port, as far as it has come. */
export interface PortWalk {
  readonly portId: string;
  readonly pins: readonly WalkPin[];
  /** The contact to read next; none when all are read. */
  readonly next?: WalkPin;
  /** What a good board reads at the next contact, what stands behind it, and how its twin reads. */
  readonly hint: readonly string[];
  readonly readCount: number;
  readonly bad: readonly WalkPin[];
}

/** Gathers the newest reading of each contact, judges it, and names the next. Readings with the connector off do not count. */
export function walkPort(board: Board, state: JobState, references: ReferenceTable, portId: string): PortWalk {
  const values = new Map<string, PinValue>();
  let last: string | undefined;
  for (const { measurement: m, value, replaced } of state.readings) {
    if (m.kind !== 'contactDrop' || m.port !== portId || (value.kind !== 'figure' && value.kind !== 'open')) continue;
    if (state.replaced.includes(portId) && !replaced.includes(portId)) continue;
    values.set(m.pin, value);
    last = m.pin;
  }
  const stats = (pin: string) => references[measurementId({ kind: 'contactDrop', port: portId, pin })];
  const pins = portPins(board, portId).map((p): WalkPin => {
    const value = values.get(p.pin);
    return value ? { ...p, value, verdict: judgePin(board, p, value, values.get(p.twin), stats(p.pin)) } : p;
  });
  const next = nextPin(pins, new Set(values.keys()), last) as WalkPin | undefined;
  return {
    portId,
    pins,
    next,
    hint: next ? hintFor(board, next, values.get(next.twin), stats(next.pin)) : [],
    readCount: values.size,
    bad: pins.filter((p) => p.verdict?.state === 'bad'),
  };
}

function hintFor(
  board: Board,
  pin: PortPin,
  twin: PinValue | undefined,
  stats: Parameters<typeof expectedDrop>[2],
): string[] {
  if (pin.net === undefined) return ['Nothing is joined here on this board: a good one reads open.'];
  const expected = expectedDrop(board, pin, stats);
  if (!expected) return ['A ground contact: a good one reads next to nothing.'];
  const behind = behindPin(board, pin).slice(0, 4);
  return [
    `Good boards read ${expected.low.toFixed(3)} to ${expected.high.toFixed(3)} V (${stats && stats.n > 1 ? `${stats.n} boards` : 'board file'}).`,
    ...(twin ? [`Its twin ${pin.twin} reads ${twin.kind === 'open' ? 'open' : `${twin.value.toFixed(3)} V`}.`] : []),
    ...(behind.length > 0 ? [`Behind it: ${behind.join(', ')}.`] : []),
  ];
}

/** What is typed before the value of a contact, such as `a5 `, or `j2 a5 ` where there are several ports. */
export const walkStem = (board: Board, portId: string, pin: string): string =>
  `${board.ports.length > 1 ? `${portId.toLowerCase()} ` : ''}${pin.toLowerCase()} `;
