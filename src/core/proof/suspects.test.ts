import { demoBoard } from '../../../demo/files';
import type { Board, Part, PartKind, Rail } from '../board';
import { seededRandom } from '../math';
import { proveRails } from '.';

const random = seededRandom(73);
const heron = demoBoard('heronlog-4-c');
const RAILS = 7;

/** A board of rails in a tree: each fed through series parts or by a converter, with loads hanging on it. */
function drawn(): Board {
  const rails: Rail[] = [];
  const parts: Part[] = [];
  const put = (ref: string, kind: PartKind, ...nets: string[]): string => {
    const pins = Object.fromEntries(nets.map((net, k) => [String(k + 1), net]));
    parts.push({ ...heron.parts[0], ref, kind, pins });
    return ref;
  };
  put('J1', 'connector', 'R0');
  for (let k = 0; k < RAILS; k++) {
    const id = `R${k}`;
    const from = k === 0 ? null : `R${Math.floor(random() * k)}`;
    const isSwitched = k === 0 || random() < 0.5;
    const series =
      from === null ? [] : [put(`F${k}`, random() < 0.5 ? 'fuse' : 'mosfet', from, isSwitched ? id : `X${k}`)];
    const by = isSwitched ? null : put(`U${k}`, 'converter', `X${k}`, id);
    const expect = { kind: 'fixed' as const, volts: 1 + k };
    rails.push({
      ...heron.rails[1],
      id,
      net: id,
      expect,
      tolerance: 0.05,
      feeds: [{ from, via: series, by, needs: [] }],
    });
    put(`C${k}`, 'capacitor', id, 'GND');
    if (random() < 0.4) put(`U${k + 20}`, 'processor', id, 'GND');
  }
  const [port] = heron.ports;
  return {
    ...heron,
    parts,
    rails,
    ports: [{ ...port, id: 'J1', vbusRail: 'R0', controller: 'U99', imagePart: 'U98' }],
  };
}

const OPENS: readonly PartKind[] = ['fuse', 'mosfet'];
const SHORTS: readonly PartKind[] = ['mosfet', 'capacitor', 'processor', 'converter'];

/** Dead rails of every single fault of every part: what opens cuts what it feeds, what shorts drags down what is joined. */
function* outcomes({ rails, parts }: Board): Generator<{ ref: string; dead: Set<string> }> {
  const below = (dead: Set<string>): Set<string> => {
    for (const rail of rails) if (rail.feeds.some((f) => f.from !== null && dead.has(f.from))) dead.add(rail.id);
    return dead;
  };
  const joined = (net: string): Set<string> => {
    const set = new Set(rails.filter((r) => r.net === net).map((r) => r.id));
    for (let grown = true; grown;) {
      grown = false;
      for (const { id, feeds } of rails)
        for (const f of feeds)
          if (f.by === null && f.from !== null && set.has(id) !== set.has(f.from)) {
            set.add(id).add(f.from);
            grown = true;
          }
    }
    return set;
  };
  yield { ref: 'J1', dead: new Set(rails.map((r) => r.id)) };
  for (const part of parts) {
    const fed = rails.filter((r) => r.feeds.some((f) => f.via.includes(part.ref) || f.by === part.ref));
    if (fed.length > 0 && (OPENS.includes(part.kind) || part.kind === 'converter'))
      yield { ref: part.ref, dead: below(new Set(fed.map((r) => r.id))) };
    if (SHORTS.includes(part.kind))
      for (const net of Object.values(part.pins))
        if (rails.some((r) => r.net === net)) yield { ref: part.ref, dead: below(joined(net)) };
  }
}

const key = (set: ReadonlySet<string>): string => [...set].sort().join();

test('the suspects of a failure are exactly the parts with a single fault that gives what was measured', () => {
  let compared = 0;
  for (let k = 0; k < 120; k++) {
    const board = drawn();
    const all = [...outcomes(board)];
    for (const pattern of new Set(all.map((o) => key(o.dead)))) {
      const dead = new Set(pattern.split(','));
      const volts = new Map(board.rails.map((r) => [r.id, dead.has(r.id) ? 0 : Number(r.id.slice(1)) + 1]));
      const { failures } = proveRails(board, volts);
      const explaining = new Set(all.filter((o) => key(o.dead) === pattern).map((o) => o.ref));
      // A short below a good rail shows as several first bad rails at once: one fault explains them only together.
      if (failures.length !== 1) continue;
      expect([...new Set(failures[0].suspects)].sort()).toEqual([...explaining].sort());
      compared += 1;
    }
  }
  expect(compared).toBeGreaterThan(500);
});
