import type { PdPacket } from './packet';

export type CcLine = 'CC1' | 'CC2';

/** What a capture of a port's CC lines holds. */
export interface CaptureReading {
  /** The line that talks; undefined when neither does. */
  readonly line?: CcLine;
  readonly packets: readonly PdPacket[];
  readonly edges: Readonly<Record<CcLine, number>>;
  readonly durationS: number;
}

/** A line that talks has at least this many edges more than a quiet one. */
const LEAST_EDGES = 50;

/** The line with more messages whose check sum holds; where none holds, the busier one that has any. */
export function talkingLine(
  packets: Readonly<Record<CcLine, readonly PdPacket[]>>,
  edges: Readonly<Record<CcLine, number>>,
): CcLine | undefined {
  const good = (line: CcLine): number => packets[line].filter((p) => p.intact).length;
  if (good('CC1') !== good('CC2')) return good('CC1') > good('CC2') ? 'CC1' : 'CC2';
  const busier = edges.CC1 >= edges.CC2 ? 'CC1' : 'CC2';
  return packets[busier].length > 0 && edges[busier] > LEAST_EDGES ? busier : undefined;
}
