import { demoBoard } from '../../../../demo/files';
import { HOUR_PRICE, PART_KIND_DEFINITIONS } from '../../diagnose';
import { foldJob } from '../log';
import type { EventBody, JobEvent } from '../log';
import { partsUsed, suggestedPrice } from './parts-used';

const board = demoBoard('heronlog-4-c');
const stateOf = (...bodies: EventBody[]) =>
  foldJob(
    bodies.map((body, i): JobEvent => ({ seq: i + 1, at: '2026-11-26T10:00:00Z', bench: 'B', actor: 'A', body })),
  );
const work: EventBody[] = [
  { kind: 'partOff', ref: 'U4' },
  { kind: 'partOn', ref: 'U4', fresh: true },
  { kind: 'partOff', ref: 'F1' },
  { kind: 'partOn', ref: 'F1', fresh: false },
  { kind: 'mended', what: 'VIN' },
];

test('new parts are used, those put back and mended traces are not; the chosen chip is named', () => {
  const route: EventBody = {
    kind: 'route',
    ...{ ref: 'U4', typeId: 'heron-pd-r2', supply: { kind: 'chip' as const, chip: 'C-107' }, verdict: 'fits' as const },
    ...{ off: ['U4'], actions: [], prove: [] },
  };
  expect(partsUsed(board, stateOf(route, ...work), {})).toEqual([
    {
      ref: 'U4',
      what: 'port controller',
      typeId: 'heron-pd-r2',
      offer: 'C-107',
      price: PART_KIND_DEFINITIONS.portController.work.price,
    },
  ]);
});

test('a price begins with parts and time by the bench’s own list, worked by hand', () => {
  const prices = { hour: 90, parts: { portController: 12.5 } };
  const parts = partsUsed(board, stateOf(...work), { prices });
  // 12.50 for the part, and 40 minutes of 90 an hour.
  expect(suggestedPrice(parts, 40, { prices })).toBe(72.5);
  expect(suggestedPrice([], 30, {})).toBe(HOUR_PRICE / 2);
});
