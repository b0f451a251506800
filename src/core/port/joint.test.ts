import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { groundNet, partByRef } from '../board';
import { statsOf } from '../reference';
import { judgeJoint, jointsOf, type PinValue } from '.';

const heron = demoBoard('heronlog-4-c');
const u4 = partByRef(heron, 'U4')!;
const joints = jointsOf(heron, u4);
const volts = (value: number): PinValue => ({ kind: 'figure', value });
const OPEN: PinValue = { kind: 'open' };
const GND = groundNet(heron);
const onNet = (net: string) => joints.find((j) => j.net === net)!;

describe.each(DEMO_BOARDS)('%s, the walk along every part', (id) => {
  const board = demoBoard(id);

  test('touches every connected pin that can be touched once, and of balls every net once', () => {
    for (const part of board.parts) {
      const walked = jointsOf(board, part);
      const connected = Object.keys(part.pins).filter((pin) => pin !== 'EP');
      if (board.packages[part.package].lands.kind !== 'array') {
        expect(walked.map((j) => j.pin).sort()).toEqual(connected.sort());
        continue;
      }
      const nets = new Set(Object.values(part.pins).filter((net) => net !== groundNet(board)));
      expect(walked.map((j) => j.net).sort()).toEqual([...nets].sort());
      expect(walked.every((j) => j.instead !== undefined)).toBe(true);
    }
  });
});

test('sides are walked one after the other; a neighbour stands on the same side, at one pitch', () => {
  const sides = joints.map((j) => j.side);
  expect(sides).toEqual([...sides].sort());
  expect(new Set(sides)).toEqual(new Set([1, 2, 3, 4]));
  for (const joint of joints) {
    for (const pin of joint.beside) {
      expect(Math.abs(Number(pin) - Number(joint.pin))).toBe(1);
      expect(Math.floor((Number(pin) - 1) / 10)).toBe(joint.side - 1);
    }
  }
});

describe('a joint is judged', () => {
  test.each<[string, string, PinValue, 'good' | 'bad', RegExp]>([
    ['at its normal drop', 'CC1', volts(0.262), 'good', /^normal$/],
    ['where nothing is read', 'CC1', OPEN, 'bad', /^open: the joint/],
    ['at the wrong sign', 'CC1', volts(-0.5), 'bad', /wrong way round/],
    ['too low', 'AON33', volts(0.2), 'bad', /^low: a bridge/],
    ['too high', 'AON33', volts(0.62), 'bad', /^high/],
    ['of ground', GND, volts(0.002), 'good', /^ground$/],
    ['of ground that is open', GND, OPEN, 'bad', /does not reach ground/],
  ])('%s', (_, net, value, state, words) => {
    const verdict = judgeJoint(heron, net, value);
    expect(verdict.state).toBe(state);
    expect(verdict.label).toMatch(words);
  });

  test('open here alone, where its net reads elsewhere, is this joint', () => {
    expect(judgeJoint(heron, 'AON33', OPEN, { sameNet: [volts(0.41)] }).label).toMatch(/^open here alone/);
  });

  test('shorted beside a ground joint, or reading as its neighbour does, names the bridge', () => {
    const toGround = judgeJoint(heron, 'CC1', volts(0.003), { beside: [{ pin: '7', net: GND }] });
    expect(toGround.label).toBe('shorted to ground: a bridge to joint 7?');
    const toNext = judgeJoint(heron, 'AON33', volts(0.352), {
      beside: [{ pin: '9', net: 'PD18', value: volts(0.35) }],
    });
    expect(toNext.label).toBe('reads as joint 9 does: a bridge between them?');
  });

  test('good boards decide before the board file', () => {
    const stats = statsOf([0.31, 0.311, 0.312, 0.31]);
    expect(judgeJoint(heron, 'CC1', volts(0.311), { stats }).state).toBe('good');
    expect(judgeJoint(heron, 'CC1', volts(0.262), { stats }).state).toBe('bad');
  });

  test('a switch node reads as the rail behind its coil', () => {
    const node = Object.keys(heron.nets).find((n) => heron.nets[n].role === 'switch' && n.startsWith('SW'))!;
    const coil = heron.parts.find((p) => p.kind === 'coil' && Object.values(p.pins).includes(node))!;
    const rail = Object.values(coil.pins).find((n) => n !== node)!;
    expect(judgeJoint(heron, node, volts(heron.nets[rail].diodeV!)).label).toBe('normal');
  });

  test('every joint of U4 has a figure to be held against', () => {
    expect(onNet('CC1').pin).toBeDefined();
    for (const { net } of joints.filter((j) => j.net !== GND))
      expect(judgeJoint(heron, net, volts(heron.nets[net].diodeV ?? 0.4)).label).not.toContain('no figure');
  });
});
