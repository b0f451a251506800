import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import type { Board, Rail } from '../board';
import type { Effect } from './faults';
import { solvePower } from './power';

const NONE = new Set<string>();
const dead = (ref: string): Effect => ({ kind: 'dead', ref });

/** Which rails can still come up when some parts do not work, by plain recursion over the feeding tree. */
function canComeUp(board: Board, rail: Rail, broken: ReadonlySet<string>, port: string): boolean {
  const p = board.ports.find((x) => x.id === port)!;
  return rail.feeds.some((feed) => {
    const parts = [...feed.via, ...(feed.by ? [feed.by] : [])];
    if (parts.some((ref) => broken.has(ref))) return false;
    return feed.from === null
      ? rail.id === p.vbusRail
      : canComeUp(
          board,
          board.rails.find((r) => r.id === feed.from)!,
          broken,
          port,
        );
  });
}

describe.each(DEMO_BOARDS)('power on %s', (id) => {
  const board = demoBoard(id);
  const [port] = board.ports;
  const solve = (effects: Effect[], absent: ReadonlySet<string> = NONE) =>
    solvePower(board, effects, absent, { port: port.id, side: 'A', pack: 'in' });

  test('a sound board talks and brings up every rail of the plugged port at its value', () => {
    const { talks, meter, railVolts } = solve([]);
    expect([talks, meter]).toEqual([true, 'healthy']);
    for (const rail of board.rails) {
      const reachable = canComeUp(board, rail, NONE, port.id);
      const wanted = rail.expect.kind === 'bus' ? port.designV : rail.expect.volts;
      expect([rail.id, railVolts.get(rail.id)]).toEqual([rail.id, reachable ? wanted : 0]);
    }
  });

  test('a dead part takes down exactly what hangs on it (set reasoning by brute force)', () => {
    const inFeeds = new Set(board.rails.flatMap((r) => r.feeds.flatMap((f) => [...f.via, ...(f.by ? [f.by] : [])])));
    for (const ref of inFeeds) {
      const { talks, railVolts } = solve([dead(ref)]);
      if (!talks) continue; // Without a contract other rules hold: only what needs no talk comes up.
      const up = board.rails.filter((r) => railVolts.get(r.id)! > 0).map((r) => r.id);
      const wanted = board.rails.filter((r) => canComeUp(board, r, new Set([ref]), port.id)).map((r) => r.id);
      expect([ref, ...up]).toEqual([ref, ...wanted]);
    }
  });

  test('a part that is off is like a dead one', () => {
    for (const ref of [port.controller, port.imagePart!]) {
      expect(solve([], new Set([ref])).talks).toBe(false);
    }
  });

  test('without a contract the bus stays at 5 V and nothing that waits for talk comes up', () => {
    const { railVolts, talks } = solve([{ kind: 'imageBad', ref: port.imagePart! }]);
    expect(talks).toBe(false);
    expect(railVolts.get(port.vbusRail)).toBe(5);
    for (const rail of board.rails)
      if (rail.feeds.every((f) => f.needs.includes('talk'))) expect(railVolts.get(rail.id)).toBe(0);
  });

  test('a short straight at the port gives nothing at all; behind a converter the bus lives', () => {
    const vbusNet = board.rails.find((r) => r.id === port.vbusRail)!.net;
    expect(solve([{ kind: 'shunt', net: vbusNet, ohm: 1.6, at: 'U4' }]).meter).toBe('nothing');
    const { railVolts } = solve([{ kind: 'shunt', net: 'V33', ohm: 1.6, at: 'U4' }]);
    expect(railVolts.get('V33')).toBe(0);
    expect(railVolts.get('VSYS')).toBeGreaterThan(0);
  });

  test('a short on a rail that only another port feeds changes nothing at this one', () => {
    const elsewhere = board.rails.filter((r) => !canComeUp(board, r, NONE, port.id));
    expect(elsewhere.length > 0).toBe(board.ports.length > 1);
    for (const { net } of elsewhere) expect(solve([{ kind: 'shunt', net, ohm: 1.6, at: 'U4' }]).meter).toBe('healthy');
  });

  test('a high resistance to ground does not drag a rail down', () => {
    expect(solve([{ kind: 'shunt', net: 'V33', ohm: 200, at: 'U4' }]).railVolts.get('V33')).toBeGreaterThan(3);
  });

  test('a switch that is shorted through passes the bus on even without talk', () => {
    const stuck = board.rails.find((r) =>
      r.feeds.some((f) => f.needs.includes('talk') && f.from !== null && f.via.length === 1),
    )!;
    const ref = stuck.feeds[0].via[0];
    const silent: Effect[] = [{ kind: 'imageBad', ref: port.imagePart! }];
    expect(solve(silent).railVolts.get(stuck.id)).toBe(0);
    expect(solve([...silent, { kind: 'stuckOn', ref }]).railVolts.get(stuck.id)).toBe(5);
  });
});
