import { centreOf, type ForeignBoard, type ForeignPad, type ForeignPart } from './foreign';
import type { TestRecord } from './ipc356';

const padOf = (r: TestRecord): ForeignPad => ({
  pin: r.pin,
  net: r.net,
  xMm: r.xMm,
  // Netlists count y up.
  yMm: -r.yMm,
  wMm: r.wMm,
  hMm: r.hMm,
  side: r.side,
  holeMm: r.holeMm,
});

/** The parts that test records speak of: their pads, and nothing of what they are. */
export function foreignFromRecords(records: readonly TestRecord[], notes: readonly string[] = []): ForeignBoard {
  const byRef = new Map<string, TestRecord[]>();
  for (const r of records) {
    if (r.ref === '') continue;
    const list = byRef.get(r.ref);
    if (list) list.push(r);
    else byRef.set(r.ref, [r]);
  }
  const parts = [...byRef].map(([ref, list]): ForeignPart => {
    const pads = list.map(padOf);
    const surface = pads.find((p) => p.side !== 'both');
    return {
      ref,
      value: '',
      footprint: '',
      ...centreOf(pads),
      rotationDeg: 0,
      side: surface?.side === 'back' ? 'back' : 'front',
      pads,
    };
  });
  return { parts, loose: records.filter((r) => r.ref === '').map(padOf), notes };
}
