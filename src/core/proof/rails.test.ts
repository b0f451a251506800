/** A tree of rails small enough to be worked out by hand: which rail is blamed, and which parts can explain it. */
import { demoBoard } from '../../../demo/files';
import type { Board, Part, PartKind, Rail } from '../board';
import { proveRails } from '.';

const heron = demoBoard('heronlog-4-c');
const part = (ref: string, kind: PartKind, ...nets: string[]): Part => ({
  ...heron.parts[0],
  ref,
  kind,
  pins: Object.fromEntries(nets.map((net, k) => [String(k + 1), net])),
});
type Feed = Rail['feeds'][number];
const feed = (from: string | null, how: Partial<Feed> = {}): Feed => ({ from, via: [], by: null, needs: [], ...how });
const rail = (id: string, volts: number, ...feeds: Feed[]): Rail => ({
  ...heron.rails[0],
  ...{ id, net: id, expect: { kind: 'fixed', volts }, tolerance: 0.1, feeds },
});

/**
 * IN ─F1─ BUS ─U1─ AON ─U1 (with its image)─ CORE
 *          └─Q1 (when it has talked)─ SYS ─U2─ OUT
 *                                      ├──────D1─ AUX ─D2─ OUT
 */
const board: Board = {
  ...heron,
  parts: [
    part('J1', 'connector', 'IN', 'GND'),
    part('F1', 'fuse', 'IN', 'BUS'),
    part('U1', 'portController', 'BUS', 'AON', 'CORE', 'GND'),
    part('U9', 'flash', 'AON', 'GND'),
    part('Q1', 'mosfet', 'BUS', 'SYS'),
    part('U2', 'converter', 'SYS', 'OUT', 'GND'),
    part('D1', 'clampDiode', 'SYS', 'AUX'),
    part('D2', 'clampDiode', 'OUT', 'AUX'),
    part('C1', 'capacitor', 'IN', 'GND'),
    part('C2', 'capacitor', 'SYS', 'GND'),
    part('C3', 'capacitor', 'OUT', 'GND'),
    part('C4', 'capacitor', 'CORE', 'GND'),
    part('C5', 'capacitor', 'AUX', 'GND'),
    part('R1', 'resistor', 'OUT', 'GND'),
  ],
  rails: [
    rail('IN', 5, feed(null)),
    rail('BUS', 5, feed('IN', { via: ['F1'] })),
    rail('AON', 3.3, feed('BUS', { by: 'U1' })),
    rail('CORE', 1.8, feed('AON', { by: 'U1', needs: ['image'] })),
    rail('SYS', 5, feed('BUS', { via: ['Q1'], needs: ['talk'] })),
    rail('OUT', 3, feed('SYS', { by: 'U2' })),
    rail('AUX', 2.5, feed('SYS', { via: ['D1'] }), feed('OUT', { via: ['D2'] })),
  ],
  ports: [{ ...heron.ports[0], id: 'J1', vbusRail: 'IN', controller: 'U1', imagePart: 'U9' }],
};
const GOOD = new Map(board.rails.map((r) => [r.id as string, r.expect.kind === 'fixed' ? r.expect.volts : 0]));
const proven = (volts: Record<string, number | undefined>, on = board) => {
  const measured = new Map(GOOD);
  for (const [id, v] of Object.entries(volts)) {
    if (v === undefined) measured.delete(id);
    else measured.set(id, v);
  }
  return proveRails(on, measured);
};
const failing = (volts: Record<string, number | undefined>, on = board) =>
  proven(volts, on).failures.map(({ rail: id, lastGood, suspects }) => [id, lastGood, [...suspects].sort().join(' ')]);

test('good rails pass, and there is nothing left to measure', () => {
  const proof = proven({});
  expect(proof).toMatchObject({ allPass: true, next: undefined, failures: [] });
  expect(proof.rails.map((r) => [r.state, r.label, r.measuredV])).toEqual(
    board.rails.map((r) => ['passes', 'in its window', GOOD.get(r.id)]),
  );
});

test.each([
  [2.7, 'passes', 'in its window'],
  [3.3, 'passes', 'in its window'],
  [2.69, 'fails', 'low: wanted 2.70 V to 3.30 V'],
  [3.31, 'fails', 'high: wanted 2.70 V to 3.30 V'],
])('3 V ± 10 %% at %s V %s', (volts, state, words) => {
  expect(proven({ OUT: volts }).rails[5]).toMatchObject({ state, label: words });
});

test('what is not measured says its window, comes next in the order of the tree, and proves nothing', () => {
  const proof = proven({ SYS: undefined, OUT: undefined });
  expect(proof.rails[5]).toMatchObject({ state: 'untested', label: '2.70 V to 3.30 V' });
  expect(proof).toMatchObject({ next: 'SYS', allPass: false, failures: [] });
});

test.each<[string, Record<string, number | undefined>, [string, string, string][]]>([
  // No contract, or a short on what is joined to the port: the port itself, and all that hangs on IN.
  ['the first rail of all', { IN: 0 }, [['IN', 'the port', 'C1 J1']]],
  // A short behind the fuse drags the input down as well: whatever hangs on BUS, which is joined to IN.
  ['two joined rails', { IN: 0, BUS: 0 }, [['IN', 'the port', 'C1 J1 Q1 U1']]],
  // IN is good and joined to BUS by the fuse alone: a short would have dragged both down.
  ['a rail behind a fuse', { BUS: 0 }, [['BUS', 'IN', 'F1']]],
  // By the controller, without a condition: the controller, and what hangs on AON; of these the flash is none of the image's.
  ['a rail of the controller', { AON: 0 }, [['AON', 'BUS', 'U1 U9']]],
  // It waits for the image: the flash is suspected too, as SYS has proven nothing.
  [
    'a rail that waits for the image',
    { CORE: 0, SYS: 0 },
    [
      ['CORE', 'AON', 'C4 U1 U9'],
      ['SYS', 'BUS', 'Q1 U1 U9'],
    ],
  ],
  // SYS came up, so the controller talks and its image is good.
  ['the same where the talk has proven the image', { CORE: 0 }, [['CORE', 'AON', 'C4 U1']]],
  ['a rail that waits for the talk, the image proven by CORE', { SYS: 0 }, [['SYS', 'BUS', 'Q1 U1']]],
  ['a converter’s rail: what hangs on it, no resistor', { OUT: 0 }, [['OUT', 'SYS', 'C3 D2 U2']]],
  // AUX is joined to OUT, so what hangs on AUX can drag OUT down too. (SYS is good: the short lies beyond the diode.)
  ['a converter’s rail with what is joined to it', { OUT: 0, AUX: 0 }, [['OUT', 'SYS', 'C3 C5 D1 D2 U2']]],
  ['two feeds, both sources good: only what lies between', { AUX: 0 }, [['AUX', 'SYS', 'D1 D2']]],
  ['a source not measured is the last that is known of', { SYS: undefined, OUT: 0 }, [['OUT', 'SYS', 'C3 D2 U2']]],
  ['of two sources the good one', { SYS: undefined, AUX: 0 }, [['AUX', 'OUT', 'D1 D2']]],
])('%s', (_, volts, wanted) => {
  expect(failing(volts)).toEqual(wanted);
});

test('a controller without a memory of its own is the image itself', () => {
  const own = { ...board, ports: [{ ...board.ports[0], imagePart: undefined }] };
  expect(failing({ CORE: 0, SYS: 0 }, own)).toEqual([
    ['CORE', 'AON', 'C4 U1'],
    ['SYS', 'BUS', 'Q1 U1'],
  ]);
});

test('the image does not hold a rail back that another converter makes', () => {
  const rails = board.rails.map((r) =>
    r.id === 'OUT' ? rail('OUT', 3, feed('SYS', { by: 'U2', needs: ['image'] })) : r,
  );
  expect(failing({ OUT: 0, CORE: 0 }, { ...board, rails })).toContainEqual(['OUT', 'SYS', 'C3 D2 U2']);
});
