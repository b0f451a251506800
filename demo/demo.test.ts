import { judgeImage, sha256Hex } from '../src/core/image';
import { Predictor } from '../src/core/diagnose';
import { eventBodySchema, foldJob, type JobEvent } from '../src/core/job';
import { likelihoodOf } from './tests/likelihood';
import { DEMO_DUMPS } from './dumps';
import { DEMO_FAMILIES, demoBoard, demoDump, demoFamily, demoStations } from './files';
import { demoImage } from './images';
import { demoJobs } from './jobs';

describe('dumps', () => {
  test.each(DEMO_DUMPS)('$file is what its builder makes', ({ file, family, wish }) => {
    expect(sha256Hex(demoDump(file))).toBe(sha256Hex(demoImage(demoFamily(family), wish)));
  });

  test.each(DEMO_DUMPS)('$file is sound exactly when it was not damaged', ({ file, family, wish }) => {
    expect(judgeImage(demoFamily(family), demoDump(file)).sound).toBe(!wish.damagedBytes);
  });

  test('units of a family share their code and differ in who they are', () => {
    for (const id of DEMO_FAMILIES) {
      const family = demoFamily(id);
      const [a, b] = [3, 4].map((unit) => demoImage(family, { code: 9, unit, position: 1 }));
      const part = (bytes: Uint8Array, meaning: string): string =>
        family.regions
          .filter((r) => r.meaning === meaning)
          .map((r) => bytes.slice(r.offset, r.offset + r.length).join())
          .join('|');
      expect(part(a, 'code')).toBe(part(b, 'code'));
      expect(part(a, 'identity')).not.toBe(part(b, 'identity'));
    }
  });
});

describe.each(demoJobs())('job $number', ({ boardId, events }) => {
  const board = demoBoard(boardId);
  const numbered = events.map((body, i): JobEvent => ({
    seq: i + 1,
    at: '2026-11-24T08:00:00.000Z',
    bench: 'Bench 1',
    actor: 'Bench lead',
    body,
  }));
  const state = foldJob(numbered);

  test('has events that pass the schema and begins with its story', () => {
    for (const body of events) expect(eventBodySchema.safeParse(body).success).toBe(true);
    expect(events[0].kind).toBe('story');
  });

  test('has readings that one fault of the model explains far better than a slip would', () => {
    if (state.readings.length === 0) return;
    const predictor = Predictor.of(board);
    const best = Math.max(...predictor.faults.map((f) => likelihoodOf(predictor, f, state.readings)));
    // Every reading fits: none needs the error rate to be possible at all.
    expect(best).toBeGreaterThan(Math.log(0.05) * state.readings.length);
  });

  test('speaks only of parts and nets of its board', () => {
    const refs = new Set(board.parts.map((p) => p.ref));
    for (const body of events) if ('ref' in body && body.ref) expect(refs).toContain(body.ref);
  });
});

test('stations: outlet and plate within what the format allows, nozzles in order', () => {
  for (const station of demoStations()) {
    expect(station.nozzlesMm).toEqual([...station.nozzlesMm].sort((a, b) => a - b));
    expect(station.setC[0]).toBeLessThan(station.setC[1]);
  }
});
