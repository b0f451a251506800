import { demoBoard } from '../../../../demo/files';
import { residualRisk, shortIsBackChance } from './residual';
import { foldJob, type EventBody, type JobEvent } from '..';

const board = demoBoard('heronlog-4-c');
const after = (...bodies: EventBody[]) =>
  foldJob(
    bodies.map((body, k): JobEvent => ({
      seq: k + 1,
      at: '2026-11-24T08:00:00Z',
      bench: 'Bench 1',
      actor: 'Lead',
      body,
    })),
  );
const suspects = [
  { ref: 'U4', words: '', p: 0.7, reasons: [] },
  { ref: 'C20', words: '', p: 0.2, reasons: [] },
];

test('before any work the suspects keep their chances', () => {
  const risk = residualRisk(board, after(), { suspects, curedChance: 0 } as never);
  expect([risk.get('U4'), risk.get('C20')]).toEqual([expect.closeTo(0.7003, 4), expect.closeTo(0.2008, 4)]);
  expect(risk.get('J3')).toBeCloseTo(0.001, 12);
});

test('a placed part with a pad below it is a hidden joint; what else was suspected shrinks with the cure', () => {
  const placed = after({ kind: 'partOff', ref: 'U4' }, { kind: 'partOn', ref: 'U4', fresh: true });
  const risk = residualRisk(board, placed, { suspects, curedChance: 0.9 } as never);
  expect(risk.get('U4')).toBeCloseTo(0.06, 9);
  expect(risk.get('C20')).toBeCloseTo(1 - 0.999 * (1 - 0.1 * 0.2), 9);
});

test('a short is likelier after work, likelier still unseen, and sure where it reads', () => {
  const placed = after({ kind: 'partOff', ref: 'U4' }, { kind: 'partOn', ref: 'U4', fresh: true });
  const chances = [
    shortIsBackChance(after(), []),
    shortIsBackChance(placed, [{ gone: true }]),
    shortIsBackChance(placed, [{ gone: undefined }]),
    shortIsBackChance(placed, [{ gone: false }]),
  ];
  [0.01, 0.0397, 0.51985, 1].forEach((chance, k) => expect(chances[k]).toBeCloseTo(chance, 9));
});
