import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { simulateTestBody, testBodySchema, type TestBody } from './test-body';

const FOLDER = path.join(__dirname, 'tests/finite-elements');
const cases = readdirSync(FOLDER).map((file) => {
  const { body, secondsAndTempsC } = JSON.parse(readFileSync(path.join(FOLDER, file), 'utf8')) as {
    body: unknown;
    secondsAndTempsC: number[][];
  };
  return { name: path.basename(file, '.json'), body: testBodySchema.parse(body), rows: secondsAndTempsC };
});

describe.each(cases)('a body solved by finite elements, $name (CalculiX; source in its file)', ({ body, rows }) => {
  const run = simulateTestBody(body);
  const offs = (probe: string): number[] => {
    const column = 1 + body.probes.findIndex((p) => p.name === probe);
    const { tempsC } = run.columns.find((c) => c.name === probe)!;
    return rows.map((row) => tempsC[row[0]] - row[column]);
  };

  test.each(body.probes.map((p) => p.name))('%s within 1 K rms and 1.5 K at any time', (probe) => {
    const list = offs(probe);
    expect(Math.sqrt(list.reduce((s, o) => s + o * o, 0) / list.length)).toBeLessThan(1);
    expect(Math.max(...list.map(Math.abs))).toBeLessThan(1.5);
  });

  test('heat balances', () => expect(run.energyError).toBeLessThan(1e-3));
});

const { body: plain } = cases.find((c) => c.name === 'thin-small-parts')!;

test('layers, steps and cells matter: three even layers are further off than what is chosen', () => {
  const { body, rows } = cases.find((c) => c.name === 'two-off-centre')!;
  const worst = (layers?: { slab: number[]; body: number[] }): number => {
    const { tempsC } = simulateTestBody(body, layers && { layers }).columns.find((c) => c.name === 'worked middle')!;
    return Math.max(...rows.map((row) => Math.abs(tempsC[row[0]] - row[1])));
  };
  expect(worst({ slab: [1 / 3, 1 / 3, 1 / 3], body: [0.5, 0.5] })).toBeGreaterThan(2 * worst());
});

test('a block beside the plate and a probe on a face that is not there are refused in a sentence', () => {
  const beside: TestBody = { ...plain, blocks: [...plain.blocks, { ...plain.blocks[0], name: 'lost', xMm: -50 }] };
  expect(() => simulateTestBody(beside)).toThrow('Expected block lost on the plate; it lies beside it.');
  const closed = {
    ...plain.blocks[0],
    xMm: plain.plate.sizeMm[0] / 2,
    yMm: plain.plate.sizeMm[1] / 2,
    sizeMm: plain.plate.sizeMm,
  };
  const whole: TestBody = { ...plain, blocks: [closed], probes: [{ name: 'p', xMm: 3, yMm: 3, on: 'plateTop' }] };
  expect(() => simulateTestBody(whole)).toThrow('Expected a face for probe p (plateTop); there is none.');
});

test('it does not matter which block the cells’ height is taken from: another height is kept by its material', () => {
  const [block] = plain.blocks;
  const air = { filmWm2K: 60, airC: 250 };
  const low = { ...block, name: 'low', xMm: 20, yMm: 20, top: undefined };
  const high = { ...block, name: 'high', xMm: 45, yMm: 20, heightMm: 2.5 * block.heightMm, top: undefined };
  const run = (blocks: TestBody['blocks']) =>
    simulateTestBody({
      ...plain,
      plate: { ...plain.plate, sizeMm: [65, 40] },
      blocks,
      steps: [{ durationS: 30, top: air, bottom: air, sides: air, blockTops: {} }],
      emissivity: 0,
      probes: [],
    });
  const [a, b] = [run([low, high]), run([high, low])];
  for (const name of ['low mean', 'high mean', 'high coldest']) {
    const [one, other] = [a, b].map((r) => r.columns.find((c) => c.name === name)!.tempsC);
    one.forEach((t, s) => expect(Math.abs(t - other[s])).toBeLessThan(1));
  }
  const at30 = (name: string): number => a.columns.find((c) => c.name === name)!.tempsC[30];
  expect(at30('high mean')).toBeLessThan(at30('low mean') - 1);
});
