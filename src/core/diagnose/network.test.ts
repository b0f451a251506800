import { Matrix, solve } from 'ml-matrix';
import { seededRandom } from '../math';
import type { Element } from './elements';
import { renewedResistance, ResistanceNetwork } from './network';

const r = (id: string, a: string, b: string, ohm: number): Element => ({ id, ref: id, a, b, ohm });
/** Without leakage worth mentioning, so that textbook values come out. */
const network = (nets: string[], elements: Element[]): ResistanceNetwork =>
  new ResistanceNetwork(nets, 'G', elements, 1e15);

describe('textbook networks', () => {
  test('the unbalanced bridge (mesh analysis by hand: 1, 2, 3, 4 Ω round, 5 Ω across gives 2.3944 Ω)', () => {
    const net = network(
      ['A', 'B', 'C', 'G'],
      [r('1', 'A', 'B', 1), r('2', 'A', 'C', 2), r('3', 'B', 'G', 3), r('4', 'C', 'G', 4), r('5', 'B', 'C', 5)],
    );
    expect(net.resistanceOhm('A', 'G')).toBeCloseTo(170 / 71, 9);
  });

  test('the long ladder of equal resistors tends to the golden ratio', () => {
    const n = 40;
    const nets = Array.from({ length: n }, (_, i) => `N${i}`);
    const elements = nets.flatMap((net, i) => [
      r(`p${i}`, net, 'G', 1),
      ...(i > 0 ? [r(`s${i}`, nets[i - 1], net, 1)] : []),
    ]);
    expect(1 + network([...nets, 'G'], elements).resistanceOhm('N0', 'G')).toBeCloseTo((1 + Math.sqrt(5)) / 2, 9);
  });

  test('the cube of equal resistors: 5/6 across the body, 3/4 across a face, 7/12 along an edge', () => {
    const corners = Array.from({ length: 8 }, (_, i) => i);
    const name = (i: number): string => (i === 0 ? 'G' : `K${i}`);
    const edges = corners.flatMap((i) =>
      [1, 2, 4].filter((bit) => !(i & bit)).map((bit) => r(`${i}-${i | bit}`, name(i), name(i | bit), 1)),
    );
    const cube = network(corners.map(name), edges);
    expect(cube.resistanceOhm('K7', 'G')).toBeCloseTo(5 / 6, 9);
    expect(cube.resistanceOhm('K3', 'G')).toBeCloseTo(3 / 4, 9);
    expect(cube.resistanceOhm('K1', 'G')).toBeCloseTo(7 / 12, 9);
  });
});

test('a changed conductance by rank-one update equals building the network anew', () => {
  const random = seededRandom(5);
  for (let round = 0; round < 25; round++) {
    const nets = ['G', ...Array.from({ length: 9 }, (_, i) => `N${i}`)];
    const pick = (): string => nets[Math.floor(random() * nets.length)];
    const elements = nets.slice(1).map((net, i) => r(`t${i}`, net, nets[i], 1 + 100 * random()));
    for (let i = 0; i < 12; i++) {
      const [a, b] = [pick(), pick()];
      if (a !== b) elements.push(r(`x${i}`, a, b, 1 + 1000 * random()));
    }
    const base = new ResistanceNetwork(nets, 'G', elements);
    const short = r('short', 'N3', 'G', 1.6);
    const anew = new ResistanceNetwork(nets, 'G', [...elements, short]);
    const opened = new ResistanceNetwork(
      nets,
      'G',
      elements.filter((e) => e.id !== 't4'),
    );
    for (const [p, q] of [
      ['N0', 'G'],
      ['N8', 'N2'],
      ['N3', 'G'],
      ['N5', 'N6'],
    ]) {
      expect(base.resistanceOhm(p, q, { a: 'N3', b: 'G', siemens: 1 / 1.6 }) / anew.resistanceOhm(p, q)).toBeCloseTo(
        1,
        8,
      );
      expect(base.resistanceOhm(p, q, base.opening('t4')!) / opened.resistanceOhm(p, q)).toBeCloseTo(1, 6);
    }
  }
});

test('many changes at once by one update equal building the network anew', () => {
  const random = seededRandom(8);
  const nets = ['G', ...Array.from({ length: 12 }, (_, i) => `N${i}`)];
  const elements = nets.slice(1).map((net, i) => r(`t${i}`, net, nets[i % 5], 1 + 100 * random()));
  const base = new ResistanceNetwork(nets, 'G', elements);
  for (let count = 1; count <= 5; count++) {
    const changes = Array.from({ length: count }, (_, k) => ({
      a: `N${2 * k}`,
      b: 'G',
      siemens: 1 / (1 + 9 * random()),
    }));
    const updated = renewedResistance(
      base.transfer('N1', 'N7', 'N1', 'N7'),
      changes.map((x) => x.siemens),
      changes.map((x) => base.transfer('N1', 'N7', x.a, x.b)),
      changes.map((x) => changes.map((y) => base.transfer(x.a, x.b, y.a, y.b))),
    );
    expect(updated! / base.withChanges(changes).resistanceOhm('N1', 'N7')).toBeCloseTo(1, 9);
  }
});

/** Effective resistance by a dense solve with an independent library: unit current from p to q, potential difference. */
function denseOhm(
  nets: readonly string[],
  ground: string,
  elements: readonly Element[],
  leakOhm: number,
  p: string,
  q: string,
): number {
  const nodes = nets.filter((n) => n !== ground);
  const at = (net: string): number => nodes.indexOf(net);
  const g = Matrix.zeros(nodes.length, nodes.length);
  const add = (i: number, j: number, v: number): void => void g.set(i, j, g.get(i, j) + v);
  for (let i = 0; i < nodes.length; i++) add(i, i, 1 / leakOhm);
  for (const { a, b, ohm } of elements) {
    const [i, j] = [at(a), at(b)];
    if (i >= 0) add(i, i, 1 / ohm);
    if (j >= 0) add(j, j, 1 / ohm);
    if (i >= 0 && j >= 0) {
      add(i, j, -1 / ohm);
      add(j, i, -1 / ohm);
    }
  }
  const current = Matrix.zeros(nodes.length, 1);
  if (at(p) >= 0) current.set(at(p), 0, 1);
  if (at(q) >= 0) current.set(at(q), 0, current.get(at(q), 0) - 1);
  const v = solve(g, current);
  return (at(p) >= 0 ? v.get(at(p), 0) : 0) - (at(q) >= 0 ? v.get(at(q), 0) : 0);
}

describe('against a dense solve by an independent library (ml-matrix 6.15.1, LU decomposition)', () => {
  const LEAK = 1e6;
  const random = seededRandom(77);
  const nets = ['G', ...Array.from({ length: 14 }, (_, i) => `N${i}`)];
  const pick = (): string => nets[Math.floor(random() * nets.length)];
  const randomElements = (): Element[] => {
    const tree = nets.slice(1).map((net, i) => r(`t${i}`, net, nets[i], 1 + 1000 * random()));
    for (let i = 0; i < 25; i++) {
      const [a, b] = [pick(), pick()];
      if (a !== b) tree.push(r(`x${i}`, a, b, 1 + 1000 * random()));
    }
    return tree;
  };

  test('random networks agree to 1e-9', () => {
    for (let round = 0; round < 40; round++) {
      const elements = randomElements();
      const ours = new ResistanceNetwork(nets, 'G', elements, LEAK);
      for (let k = 0; k < 5; k++) {
        const [p, q] = [pick(), pick()];
        if (p === q) continue;
        expect(Math.abs(ours.resistanceOhm(p, q) / denseOhm(nets, 'G', elements, LEAK, p, q) - 1)).toBeLessThan(1e-9);
      }
    }
  });

  test('and so do two changes at once, made by a low-rank update', () => {
    for (let round = 0; round < 40; round++) {
      const elements = randomElements();
      const ours = new ResistanceNetwork(nets, 'G', elements, LEAK);
      const short = r('short', 'N3', 'G', 0.5 + 4 * random());
      const bridge = r('bridge', 'N5', 'N9', 0.5 + 4 * random());
      const change = ({ a, b, ohm }: Element) => ({ a, b, siemens: 1 / ohm });
      const opened = ours.opening('x7') ?? change(bridge);
      const without = elements.filter((e) => e.id !== 'x7');
      for (const [p, q] of [
        ['N0', 'G'],
        ['N3', 'N5'],
        ['N9', 'G'],
        ['N13', 'N2'],
      ]) {
        const two = denseOhm(nets, 'G', [...elements, short, bridge], LEAK, p, q);
        expect(Math.abs(ours.resistanceOhm(p, q, change(short), change(bridge)) / two - 1)).toBeLessThan(1e-8);
        const cut = denseOhm(
          nets,
          'G',
          ours.opening('x7') ? [...without, short] : [...elements, short, bridge],
          LEAK,
          p,
          q,
        );
        expect(Math.abs(ours.resistanceOhm(p, q, change(short), opened) / cut - 1)).toBeLessThan(1e-8);
      }
    }
  });
});

test('of two equal loads on one net only one is taken out, where the network is built anew', () => {
  const elements = [r('u1', 'A', 'G', 100), r('u2', 'A', 'G', 100), r('f', 'A', 'B', 0.02)];
  const net = new ResistanceNetwork(['A', 'B', 'G'], 'G', elements, 1e9);
  const renewed = net.withChanges([net.opening('u1')!]);
  expect(renewed.resistanceOhm('A', 'G')).toBeCloseTo(100, 4);
});
