import type { NetName } from '../identities';
import { partByRef, type Board } from '../board';

export type Row = 'A' | 'B';

/** One contact of the connector. */
export interface PortPin {
  /** `A5`. */
  readonly pin: string;
  readonly row: Row;
  /** What the standard says it carries: `CC1`. */
  readonly carries: string;
  /** The net on this board; none where it is left open by design. */
  readonly net?: NetName;
  /** The contact that takes its place when the plug is turned. */
  readonly twin: string;
  readonly twinNet?: string;
}

/** Contacts 1 to 12 of each row. Source: USB Type-C specification, receptacle pin assignment. */
const CARRIES: Record<Row, readonly string[]> = {
  A: ['GND', 'TX1+', 'TX1−', 'VBUS', 'CC1', 'D+', 'D−', 'SBU1', 'VBUS', 'RX2−', 'RX2+', 'GND'],
  B: ['GND', 'TX2+', 'TX2−', 'VBUS', 'CC2', 'D+', 'D−', 'SBU2', 'VBUS', 'RX1−', 'RX1+', 'GND'],
};
const ROWS: readonly Row[] = ['A', 'B'];

/** All contacts of a port in the order of the walk: row A from 1 to 12, then row B. */
export function portPins(board: Board, portId: string): PortPin[] {
  const pins = partByRef(board, portId)?.pins ?? {};
  return ROWS.flatMap((row) =>
    CARRIES[row].map((carries, i) => {
      const pin = `${row}${i + 1}`;
      const twin = `${row === 'A' ? 'B' : 'A'}${i + 1}`;
      return { pin, row, carries, net: pins[pin], twin, twinNet: pins[twin] };
    }),
  );
}

/** The first contact of the walk that has no value yet, starting after `after` where given; none when all are read. */
export function nextPin(pins: readonly PortPin[], read: ReadonlySet<string>, after?: string): PortPin | undefined {
  const start = after === undefined ? 0 : pins.findIndex((p) => p.pin === after) + 1;
  const ordered = [...pins.slice(start), ...pins.slice(0, start)];
  return ordered.find((p) => !read.has(p.pin));
}
