/** A small seeded sample of what the benchmark plays at length: hidden boards, inside every list and outside. */
import { hiddenBoards } from '../drill';
import { NoisyBench } from '../drill';
import { playSession, type PlayedSession } from '../../../bench/diagnose/play-session';
import { plausibleBoard } from '../../../bench/diagnose/plausible-board';
import { demoBoard } from '../../../demo/files';
import { seededRandom } from '../math';
import { singleFaults } from './faults';
import { Predictor } from './predictor';
import { DiagnoseSession } from './session';

const predictor = Predictor.of(demoBoard('heronlog-4-c'));
const draw = hiddenBoards(predictor);

const played = (k: number): PlayedSession & { outside: boolean } => {
  const hidden = draw(seededRandom(k));
  const bench = new NoisyBench(predictor, seededRandom(100_000 + k));
  return { ...playSession(predictor, hidden.faults, bench), outside: hidden.outside };
};

test('six hidden boards: those with listed faults are cured, no job is without an end @long', () => {
  const all = Array.from({ length: 6 }, (_, k) => played(k));
  for (const job of all) {
    expect(job.endless).toBe(false);
    if (!job.outside) expect([job.cured, job.steps.at(-1)]).toEqual([true, expect.stringContaining('right')]);
    else expect(job.cured || job.toldInTime).toBe(true);
    // No part is changed at next to no chance.
    for (const { p } of job.works) expect(p).toBeGreaterThanOrEqual(0.02);
  }
  // What was stated of works is about what came of them.
  const works = all.flatMap((job) => job.works);
  const stated = works.reduce((sum, w) => sum + w.p, 0) / works.length;
  const right = works.filter((w) => w.right).length / works.length;
  expect(Math.abs(stated - right)).toBeLessThan(0.15);
});

test('a board of three hundred parts: a shorted supply leads to its chip, by classes of faults', () => {
  const board = plausibleBoard(300);
  const session = new DiagnoseSession(Predictor.of(board));
  const { belief } = session.position();
  // Shorts of a rail by any of its capacitors are one class until something tells them apart.
  expect(belief.space.classes.members.length).toBeLessThan(0.7 * singleFaults(board).length);
  const ohm = (net: string, value: number) => ({
    reading: { measurement: { kind: 'groundResistance' as const, net }, value: { kind: 'figure' as const, value } },
  });
  for (const line of [ohm('AON33', 1.6), ohm('PD18', 1.7)]) expect(session.note(line).ok).toBe(true);
  const { suspects, step } = session.answer();
  expect(suspects[0].words).toMatch(/^U4 .*AON33 and PD18/);
  expect(['work', 'again', 'test']).toContain(step.kind);
});
