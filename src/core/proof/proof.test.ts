import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { Predictor, idealReading, singleFaults } from '../diagnose';
import { judgeGates, proveRails, railWindows } from '.';

const heron = demoBoard('heronlog-4-c');

test('windows follow the board file; bus rails follow the port’s design voltage', () => {
  const windows = Object.fromEntries(railWindows(heron).map((w) => [w.rail.id, w]));
  expect(windows.VBUS.expectV).toBe(15);
  expect(windows.AON33.minV).toBeCloseTo(3.3 * 0.95, 9);
  expect(windows.AON33.maxV).toBeCloseTo(3.3 * 1.05, 9);
});

test('the next rail is the first unmeasured one in tree order', () => {
  expect(proveRails(heron, new Map()).next).toBe('VBUS');
  expect(
    proveRails(
      heron,
      new Map([
        ['VBUS', 15],
        ['VBUS_F', 15],
      ]),
    ).next,
  ).toBe('AON33');
});

test('of a failing branch only the first bad rail is reported, with the last good one', () => {
  const volts = new Map([
    ['VBUS', 15],
    ['VBUS_F', 15],
    ['AON33', 3.3],
    ['PD18', 1.8],
    ['VIN', 15],
    ['CHG5', 5],
    ['VSYS', 0],
    ['VPACK', 0],
    ['V33', 0],
  ]);
  const { failures, allPass } = proveRails(heron, volts);
  expect(allPass).toBe(false);
  expect(failures.map((f) => f.rail)).toEqual(['VSYS']);
  expect(failures[0].lastGood).toBe('VIN');
  expect(failures[0].suspects).toEqual(expect.arrayContaining(['L1', 'U2', 'C20']));
  expect(failures[0].suspects).not.toContain('F1');
});

test.each([
  ['steady', {}, 'passes', 'in its window'],
  ['with a ripple that stays in the window', { ripplePpV: 0.2 }, 'passes', 'in its window'],
  ['with a ripple that leaves it', { ripplePpV: 0.4 }, 'fails', 'with its ripple of 0.40 V it leaves'],
  ['that comes and goes', { swings: true }, 'fails', 'it comes and goes'],
] as const)('a rail in the middle of its window %s', (_, note, state, words) => {
  const measured = new Map(railWindows(heron).map((w) => [w.rail.id, w.expectV]));
  const { rails, failures } = proveRails(heron, measured, new Map([['AON33', note]]));
  const rail = rails.find((r) => r.rail.id === 'AON33')!;
  expect(rail.state).toBe(state);
  expect(rail.label).toContain(words);
  expect(failures.map((f) => f.rail)).toEqual(state === 'fails' ? ['AON33'] : []);
});

describe.each(DEMO_BOARDS)('%s, every fault that fails a rail when all rails are measured', (id) => {
  const predictor = Predictor.of(demoBoard(id));
  const { board } = predictor;

  test('lies in the smallest set of suspects of some first bad rail, or at the port', () => {
    // The set names parts. Bridges, cracked traces and long screws are the board's own faults: Probe finds those.
    const ofParts = singleFaults(board).filter((f) => f.story === undefined);
    const missed = ofParts.flatMap((fault) => {
      const volts = new Map(
        board.rails.map((rail) => {
          const { value } = idealReading(predictor, { kind: 'railVoltage', rail: rail.id }, fault);
          return [rail.id, value.kind === 'figure' ? value.value : 0];
        }),
      );
      const { failures } = proveRails(board, volts);
      const named = new Set(failures.flatMap((f) => f.suspects));
      // Without a contract every bus rail stays at 5 V: the first bad rail is then VBUS, and the port speaks, not the tree.
      const noContract = failures.some((f) => board.ports.some((p) => p.vbusRail === f.rail));
      return failures.length === 0 || fault.ref === '' || noContract || named.has(fault.ref) ? [] : [fault.id];
    });
    expect(missed).toEqual([]);
  });
});

test('gates name what is missing and hold when nothing is', () => {
  const all = new Map(railWindows(heron).map((w) => [w.rail.id, w.expectV]));
  const facts = {
    rails: proveRails(heron, all),
    plugs: [
      { port: 'J1', side: 'A', healthy: true },
      { port: 'J1', side: 'B', healthy: undefined },
    ] as const,
    shorts: [{ net: 'AON33', gone: false }],
    functions: [{ id: 'charge', works: true }],
    imageSound: true,
  };
  const gates = Object.fromEntries(judgeGates(facts).map((g) => [g.id, g]));
  expect(gates.rails.holds).toBe(true);
  expect(gates.plugs).toMatchObject({ holds: false, missing: 'J1 B not yet' });
  expect(gates.shorts.missing).toBe('AON33 still shorted');
  expect(gates.image.holds).toBe(true);
  expect(gates.functions.holds).toBe(true);
});
