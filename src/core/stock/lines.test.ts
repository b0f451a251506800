import { DEMO_BOARDS, demoBoard, demoPartTypes, demoStock } from '../../../demo/files';
import { problemText } from '../result';
import { grammarForms } from '../command-line';
import { STOCK_GRAMMAR, completeStockEntry, parseStockEntry, type StockWorld } from './lines';
import { applyStock, emptyStock, foldStock } from './state';

const world = (): StockWorld => ({
  state: foldStock(demoStock()),
  types: demoPartTypes(),
  boards: DEMO_BOARDS.map(demoBoard),
});
const read = (text: string, w = world()) => {
  const entry = parseStockEntry(w, text);
  return entry.ok ? { echo: entry.value.echo, bodies: entry.value.bodies } : problemText(entry.problems);
};
const echo = (text: string, w = world()): string => {
  const entry = read(text, w);
  return typeof entry === 'string' ? entry : entry.echo;
};
/** The demo world after these lines. */
function after(...lines: string[]): StockWorld {
  const w = world();
  for (const line of lines) {
    const entry = parseStockEntry(w, line);
    if (!entry.ok) throw new Error(`${line}: ${problemText(entry.problems)}`);
    for (const body of entry.value.bodies) applyStock(w.state, body, '2026-11-24T08:00:00.000Z');
  }
  return w;
}

test('a chip is taken from a lot, set aside, fitted, and comes off again', () => {
  expect(read('take l-12 for 31')).toEqual({
    echo: 'C-108 of L-12, set aside for job 31',
    bodies: [
      { kind: 'take', lot: 'L-12', chip: 'C-108' },
      { kind: 'move', chips: ['C-108'], to: { kind: 'bag', job: 31 } },
    ],
  });
  const w = after('take l-12 for 31', 'c-108 on 31 u4');
  expect(w.state.chips.get('C-108')!.place).toEqual({ kind: 'fitted', job: 31, ref: 'U4' });
  expect(echo('c-108 for 33', w)).toMatch(/come off job 31 into its tray first/);
  expect(echo('c-108 back', w)).toBe('C-108: tray of job 31');
  const off = after('take l-12 for 31', 'c-108 on 31 u4', 'c-108 back');
  expect(echo('c-108 back', off)).toBe('C-108: drawer');
});

test('a pair is pulled and moves as a pair, and is parted only with a reason', () => {
  const w = after('d-5 works charge', 'd-5 opened', 'pull d-5 u11');
  expect(w.state.chips.get('C-108')!.partners).toEqual(['C-109']);
  expect(read('c-108 for 35', w)).toMatchObject({ bodies: [{ chips: ['C-108', 'C-109'] }] });
  expect(read('c-109 for 35 because its flash is worn', w)).toMatchObject({
    bodies: [{ chips: ['C-109'], override: 'its flash is worn' }],
  });
  expect(echo('c-108 scrap', w)).toMatch(/move with its partner C-109/);
});

test('a donor is taken in as built, proven, and opened unproven only with a reason', () => {
  expect(echo('donor marshdesk-2-b at 48')).toBe('D-7: marshdesk-2-b at 48.00 with U11, U12, U13, U19, U2, U5');
  expect(read('donor marshdesk-2-b at 48 u12=marsh-pd-r3f')).toMatchObject({
    bodies: [{ parts: [{ ref: 'U12', typeId: 'marsh-pd-r3f', sound: true }] }],
  });
  expect(echo('d-5 opened')).toMatch(/proven before it is opened/);
  expect(echo('d-5 opened because burnt beyond use')).toBe('D-5 opened, because burnt beyond use');
});

test('moisture, counts and conditions', () => {
  expect(echo('l-13 baked')).toBe('L-13 baked');
  expect(echo('l-13 count 4 recounted')).toBe('L-13: 4 counted');
  expect(echo('c-90 dead shorted')).toBe('C-90 is dead: shorted');
  expect(echo('c-90 dead')).toBe('Expected why C-90 is dead, as in "c-90 dead no output".');
  expect(echo('off 35 u12 marsh-pd-r1 dead')).toBe(
    'C-108: marsh-pd-r1 off job 35, U12, dead, into the tray of that job',
  );
  expect(echo('off 32 u2')).toMatch(/^C-108: mere-chg-r1 off job 32, U2, suspect/);
});

test.each([
  ['', 'Expected a lot, chip or donor such as L-12, C-101, D-3, or what comes in.'],
  ['take l-99', 'Expected a lot that exists; there is no L-99.'],
  ['take l-12 at 31', 'Expected "for" and a job’s number, as in "take l-12 for 31"; got "at 31".'],
  ['c-999 for 31', 'Expected a chip that exists; there is no C-999.'],
  ['c-90 for', 'Expected a job’s number after "for"; got "".'],
  ['c-90 on 31', 'Expected the place, as in "c-90 on 31 u4"; got none.'],
  ['c-90 fly', 'Expected for, on, back, scrap, reballed, a condition or a moisture word after C-90; got "fly".'],
  ['lot nonsense 3 at 2', 'Expected a part type of the library; got "nonsense".'],
  ['lot heron-pd-r2 0 at 2', 'Expected a count and a price each, as in "lot heron-pd-r2 10 at 8.5"; got "0 at 2".'],
  ['donor nowhere at 2', 'Expected a board of the library; got "nowhere".'],
  ['donor marshdesk-2-b at 4 c7', 'Expected places whose part type matters on marshdesk-2-b; C7 is not one.'],
  ['pull d-3 u12', 'Expected donor D-3 to be opened first; it is still whole.'],
  ['off 32 u99', 'Expected the part type too, since several boards have a U99; got none.'],
  ['l-13 eaten', 'Expected open, dry, out, baked or count after L-13; got "eaten".'],
  ['d-5 burns', 'Expected works, fails or opened after D-5; got "burns".'],
  ['c-107 for 31', 'Expected a chip that works; C-107 is dead.'],
])('%s is explained', (text, problem) => {
  expect(read(text)).toBe(problem);
});

test('every form of the help reads, or is refused for what the demo stock lacks', () => {
  const fresh: StockWorld = { ...world(), state: emptyStock() };
  const readable = grammarForms(STOCK_GRAMMAR)
    .map((f) => f.example)
    .filter((form) => typeof read(form) !== 'string');
  expect(readable.length).toBeGreaterThanOrEqual(9);
  expect(echo('lot heron-pd-r2 10 at 8.5', fresh)).toBe('L-1: 10 heron-pd-r2 at 8.50, sealed');
});

test('completion knows lots, chips, donors and what can be done with each', () => {
  const w = world();
  expect(completeStockEntry(w, 'ta')).toEqual(['take']);
  expect(completeStockEntry(w, 'take l-1').every((l) => l.startsWith('l-1'))).toBe(true);
  expect(completeStockEntry(w, 'c-101 s')).toEqual(['scrap', 'sound', 'suspect']);
  expect(completeStockEntry(w, 'l-13 c')).toEqual(['count']);
  expect(completeStockEntry(w, 'lot heron-pd-r2 10 a')).toEqual(['at']);
});
