/** What a new part may have wrong with it. */
import { demoBoard } from '../../../../demo/files';
import { partByRef } from '../../board';
import { Predictor } from '../predictor';
import { fittingFaults, isGone, targetKey, workNames } from '.';

const { board, faults } = Predictor.of(demoBoard('heronlog-4-c'));
const own = faults.filter((f) => f.ref === 'U4' && f.mendedBy.kind !== 'joints');
const fitted = fittingFaults(board, 'U4', 1, own);
const NONE: ReadonlySet<string> = new Set();
const done = (...keys: string[]): ReadonlySet<string> => new Set(workNames(keys));

test('bad from the packet two in a hundred, shared out as such parts fail', () => {
  const dead = fitted.filter((f) => own.some((o) => f.id === `${o.id}/new1`));
  expect(dead).toHaveLength(own.length);
  expect(dead.reduce((sum, f) => sum + f.rate!, 0)).toBeCloseTo(0.02, 12);
});

test('every joint whose loss is missed, at the rate of its package', () => {
  const joints = fitted.filter((f) => f.id.includes('/joint/'));
  const pins = Object.entries(partByRef(board, 'U4')!.pins);
  // AON33 comes in at two pins and ground at several: one of them open is not missed.
  const alone = pins.filter(([, net]) => net !== 'GND' && pins.filter(([, n]) => n === net).length === 1);
  expect(joints.length).toBeGreaterThan(10);
  expect(joints.length).toBeLessThanOrEqual(alone.length);
  // Leadless: 0.2 %; a ball array 0.5 % (stated estimates).
  expect(new Set(joints.map((f) => f.rate))).toEqual(new Set([0.002]));
  const u8 = fittingFaults(
    board,
    'U8',
    1,
    faults.filter((f) => f.ref === 'U8' && f.mendedBy.kind !== 'joints'),
  );
  expect(new Set(u8.filter((f) => f.id.includes('/joint/')).map((f) => f.rate))).toEqual(new Set([0.005]));
});

test('an open CC joint keeps the talk of its side away, an open memory line the image, an open supply the part', () => {
  const u2 = fittingFaults(
    board,
    'U2',
    1,
    faults.filter((f) => f.ref === 'U2' && f.mendedBy.kind !== 'joints'),
  );
  const effects = (id: string): string[] =>
    [...fitted, ...u2]
      .find((f) => f.id === `${id}/new1`)!
      .effects.map((e) => e.kind)
      .sort();
  expect(effects('U4/joint/2')).toEqual(['ccDead', 'jointOpen', 'visible']);
  expect(effects('U4/joint/9')).toEqual(['imageBad', 'jointOpen', 'visible']);
  expect(effects('U2/joint/15')).toEqual(['dead', 'jointOpen', 'open', 'visible']);
});

test('solder between neighbours: to ground a short, else a bridge', () => {
  const kinds = (pair: string): string[] =>
    fitted.find((f) => f.id === `U4/bridge/${pair}/new1`)!.effects.map((e) => e.kind);
  expect(kinds('5-6')).toEqual(['shunt', 'visible']);
  expect(kinds('6-7')).toEqual(['bridge', 'visible']);
  expect(fitted.some((f) => f.id === 'U4/bridge/20-21/new1')).toBe(true);
});

test('a passive has no wrong type and no joints by number', () => {
  const c14 = fittingFaults(
    board,
    'C14',
    1,
    faults.filter((f) => f.ref === 'C14'),
  );
  expect(c14.some((f) => /type|reversed|bridge/.test(f.id))).toBe(false);
});

test('each fitting begins with its own swap and ends with the next', () => {
  const second = fittingFaults(board, 'U4', 2, own);
  const [a, b] = [fitted[0], second[0]];
  const alive = (f: typeof a, ...keys: string[]): boolean => !isGone(f, NONE, done(...keys));
  expect([alive(own[0]), alive(own[0], 'U4')]).toEqual([true, false]);
  expect([alive(a), alive(a, 'U4'), alive(a, 'U4', 'U4')]).toEqual([false, true, false]);
  expect([alive(b, 'U4'), alive(b, 'U4', 'U4'), alive(b, 'U4', 'U4', 'U4')]).toEqual([false, true, false]);
  expect(b.label).toMatch(/^New U4, second one/);
});

test('touching up ends the joints of the part that is on, and nothing of the chip', () => {
  const joint = fitted.find((f) => f.id === 'U4/joint/2/new1')!;
  const key = targetKey(joint.mendedBy);
  expect(isGone(joint, NONE, done('U4', key))).toBe(true);
  expect(isGone(fitted[0], NONE, done('U4', key))).toBe(false);
  const second = fittingFaults(board, 'U4', 2, own).find((f) => f.id === 'U4/joint/2/new2')!;
  expect(isGone(second, NONE, done('U4', key, 'U4'))).toBe(false);
});
