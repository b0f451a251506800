import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { groundNet } from '../board';
import { seededRandom } from '../math';
import { PairwiseResistance } from './pairwise-resistance';
import { conductanceChanges } from './circuit-model';
import { Predictor } from './predictor';

const NONE: ReadonlySet<string> = new Set();

describe.each(DEMO_BOARDS)('resistances under pairs of changes on %s', (id) => {
  const board = demoBoard(id);
  const predictor = Predictor.of(board);
  const network = predictor.networkWithout(NONE);
  const ground = groundNet(board);
  const active = predictor.faults.map((f) => f.effects);
  const table = new PairwiseResistance(network, active, ground);
  /** The entry of two keys among all changes. */
  const ohmOf = (a: number, b: number, net: string): number => {
    const seen = table.between(net, ground);
    return seen.ohms[seen.seenAs[a] * seen.count + seen.seenAs[b]];
  };
  const anew = (a: number, b: number, p: string, q: string): number => {
    const changes = [...table.effects[a], ...table.effects[b]];
    // The same path cannot open twice; the same short twice conducts twice.
    const list = conductanceChanges(
      a === b && changes.some((e) => e.kind === 'open' || e.kind === 'drift') ? table.effects[a] : changes,
      network,
      ground,
    );
    return network.withChanges(list).resistanceOhm(p, q);
  };

  test('equal building the network anew, for shorts at several supplies of a chip above all', () => {
    const random = seededRandom(12);
    const nets = Object.keys(board.nets).filter((n) => n !== ground);
    const several = table.effects.flatMap((list, key) =>
      list.filter((e) => e.kind === 'shunt').length > 1 ? [key] : [],
    );
    expect(several.length).toBeGreaterThan(4);
    for (let round = 0; round < 250; round++) {
      const a = several[round % several.length];
      const b = Math.floor(random() * table.keys);
      const net = nets[Math.floor(random() * nets.length)];
      const got = ohmOf(a, b, net);
      expect(Math.abs(got / anew(a, b, net, ground) - 1)).toBeLessThan(1e-6);
    }
  });

  test('lie in a table that is the same both ways, healthy where nothing changes', () => {
    const [net] = board.rails.map((r) => r.net);
    const { ohms, count, seenAs } = table.between(net, ground);
    expect(new Set(seenAs).size).toBe(count);
    expect(ohms[0]).toBeCloseTo(network.resistanceOhm(net, ground), 6);
    for (let a = 0; a < count; a += 3)
      for (let b = 0; b < count; b += 5) expect(ohms[a * count + b]).toBe(ohms[b * count + a]);
  });
});
