import type { Part } from '@/core/board';
import { namesWithRoom } from './names-with-room';

const part = (ref: string, xMm: number, yMm: number): Part => ({ ref, xMm, yMm }) as Part;
/** A hundred parts on a row, a millimetre apart: names of four letters of 1 mm overlap up to 2.48 mm. */
const row = Array.from({ length: 100 }, (_, i) => part(`U${100 + i}`, i, 0));
const refs = (parts: readonly Part[]) => parts.map((p) => p.ref);

test('few names are all drawn', () => {
  expect(
    namesWithRoom(
      row.slice(0, 60),
      () => 1,
      1,
      () => false,
    ),
  ).toHaveLength(60);
});

test('of a crowded row every third name has room, and none lies on another', () => {
  const kept = namesWithRoom(
    row,
    () => 1,
    1,
    () => false,
  );
  expect(refs(kept).slice(0, 3)).toEqual(['U100', 'U103', 'U106']);
  expect(kept).toHaveLength(34);
});

test('the larger part keeps its name; what matters keeps it whatever lies there', () => {
  const larger = namesWithRoom(
    row,
    (p) => (p.ref === 'U101' ? 9 : 1),
    1,
    () => false,
  );
  expect(refs(larger)).toContain('U101');
  expect(refs(larger)).not.toContain('U100');
  const matters = namesWithRoom(
    row,
    () => 1,
    1,
    (p) => ['U150', 'U151'].includes(p.ref),
  );
  expect(refs(matters).slice(0, 2)).toEqual(['U150', 'U151']);
});

test('rows a line apart do not touch', () => {
  const two = row.flatMap((p) => [p, part(`${p.ref}B`, p.xMm, 1.2)]);
  const kept = namesWithRoom(
    two,
    () => 1,
    1,
    () => false,
  );
  expect(kept.some((p) => p.yMm === 0) && kept.some((p) => p.yMm > 1)).toBe(true);
});
