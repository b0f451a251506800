import { demoBoard } from '../../../../demo/files';
import { partsCsv, recordsOf, writeIpc356 } from '../../netlist';
import { billOfMaterial, draftFromFile, placementTable } from '..';

const heron = demoBoard('heronlog-4-c');
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const file = { name: 'heron.ipc', bytes: bytes(writeIpc356(recordsOf(heron))) };
const given = { id: 'heron', file, answers: {} };

function taken<T>(outcome: { readonly kind: string; readonly value?: T }): T {
  if (outcome.value === undefined) throw new Error(`expected a value; got ${outcome.kind}`);
  return outcome.value;
}
const parts = (draft: { readonly board: Readonly<Record<string, unknown>> }) =>
  draft.board.parts as { ref: string; ohm?: number; xMm: number }[];

test('a file alone gives a draft without the values that it does not carry', () => {
  const { draft, fit } = taken(draftFromFile(given));
  expect(fit).toBeUndefined();
  expect(
    parts(draft)
      .map((p) => p.ref)
      .sort(),
  ).toEqual(heron.parts.map((p) => p.ref).sort());
  expect(draft.missing.join(' ')).toContain('Give these resistors their values');
});

test('a bill of material gives values, a placement list places, both together both', () => {
  const csv = partsCsv(heron);
  const places = taken(placementTable.read({ name: 'parts.csv', bytes: bytes(csv) }, {}));
  const bill = taken(billOfMaterial.read({ name: 'parts.csv', bytes: bytes(csv) }, {}));
  const valued = taken(draftFromFile({ ...given, bill }));
  expect(valued.draft.missing.join(' ')).not.toContain('Give these resistors their values');
  const both = taken(draftFromFile({ ...given, bill, places }));
  expect(both.fit!.matched).toBe(heron.parts.length);
  expect(both.fit!.typicalOffMm).toBeLessThan(0.3);
  const resistors = heron.parts.filter((p) => p.kind === 'resistor');
  for (const { ref, ohm } of resistors) expect(parts(both.draft).find((p) => p.ref === ref)!.ohm).toBeCloseTo(ohm!, 6);
});

test('what does not fit is a sentence, and a file of something else too', () => {
  const list = taken(placementTable.read({ name: 'parts.csv', bytes: bytes(partsCsv(heron)) }, {}));
  const elsewhere = { ...list, placements: list.placements.map((p) => ({ ...p, ref: `Z${p.ref}` })) };
  const refused = draftFromFile({ ...given, places: elsewhere });
  expect(refused.kind === 'refused' && refused.problems[0].message).toMatch(/^Expected at least \d+ parts of the list/);
  expect(draftFromFile({ ...given, file: { name: 'x.ipc', bytes: bytes('nonsense\n') } }).kind).toBe('refused');
});

test('what a worker sends of it is plain data', () => {
  const outcome = draftFromFile(given);
  expect(structuredClone(outcome)).toEqual(outcome);
});
