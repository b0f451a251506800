import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import type { Board, Port } from '../board';
import { reachedRails } from './reach';

/** Whether a charger at this port can feed a rail, by plain recursion up the feeding tree. */
function canFeed(board: Board, port: Port, id: string): boolean {
  const rail = board.rails.find((r) => r.id === id)!;
  return rail.feeds.some((f) => (f.from === null ? id === port.vbusRail : canFeed(board, port, f.from)));
}

describe.each(DEMO_BOARDS)('the rails of each port of %s', (id) => {
  const board = demoBoard(id);
  test.each(board.ports.map((p) => [p.id, p] as const))('%s', (_, port) => {
    const reached = reachedRails(board, port);
    expect(reached.map((r) => r.rail.id)).toEqual(
      board.rails.filter((r) => canFeed(board, port, r.id)).map((r) => r.id),
    );
    for (const { feeds } of reached)
      for (const f of feeds) expect(f.from === null || canFeed(board, port, f.from)).toBe(true);
    expect(port.controllerRails.every((rail) => reached.some((r) => r.rail.id === rail))).toBe(true);
  });
});
