import { seededRandom } from '../math';
import type { Element } from './elements';
import { ResistanceNetwork } from './network';

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
      expect(base.resistanceOhm(p, q, base.opening('t4')) / opened.resistanceOhm(p, q)).toBeCloseTo(1, 6);
    }
  }
});
