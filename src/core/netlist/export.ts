import { padsOf, type Board } from '../board';
import type { TestRecord } from './ipc356';

/** Every pad and test point of a board as test records; y up, as netlists count it. */
export function recordsOf(board: Board): TestRecord[] {
  const pads = board.parts.flatMap((part) =>
    padsOf(board, part).map((pad): TestRecord => ({
      net: part.pins[pad.pin],
      ref: part.ref,
      pin: pad.pin,
      xMm: pad.xMm,
      yMm: -pad.yMm,
      side: part.side,
      wMm: pad.wMm,
      hMm: pad.hMm,
      rotationDeg: 0,
    })),
  );
  const points = board.points.map((p): TestRecord => ({
    net: p.net,
    ref: p.id,
    pin: '1',
    xMm: p.xMm,
    yMm: -p.yMm,
    side: p.side,
    wMm: 1,
    hMm: 1,
    rotationDeg: 0,
  }));
  return [...pads, ...points];
}
