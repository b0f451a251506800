import fc from 'fast-check';
import { demoBoard, demoFamily, demoStations } from '../../../../demo/files';
import { demoImage } from '../../../../demo/images';
import { parseBoard } from '../../board';
import { parsePlanEntry, startingPlan } from '../../heat';
import { judgeImage, mergeImages, proposeTransplant } from '../../image';
import { formatOhm, parseFigure } from '../../units';
import { applyCompletion } from '../../command-line';
import { completeEntry, parseEntry } from '../entry/grammar';
import type { EventBody, JobEvent } from '../log';
import { foldJob, liveEvents } from '../log';

const board = demoBoard('heronlog-4-c');
const refs = board.parts.slice(0, 12).map((p) => p.ref);
const nets = ['AON33', 'PD18', 'VIN', 'V33'];

const body: fc.Arbitrary<EventBody> = fc.oneof(
  fc
    .record({ net: fc.constantFrom(...nets), value: fc.double({ min: 0.1, max: 1e5, noNaN: true }) })
    .map(({ net, value }): EventBody => ({
      kind: 'reading',
      measurement: { kind: 'groundResistance', net },
      value: { kind: 'figure', value },
    })),
  fc.constantFrom(...refs).map((ref): EventBody => ({ kind: 'partOff', ref })),
  fc.constantFrom(...refs).map((ref): EventBody => ({ kind: 'partOn', ref, fresh: true })),
  fc.constantFrom('in' as const, 'out' as const).map((state): EventBody => ({ kind: 'pack', state })),
  fc.constantFrom<EventBody>(
    { kind: 'close', outcome: 'repaired', cause: '' },
    { kind: 'reopen', symptom: 'came back' },
  ),
  fc.string({ minLength: 1 }).map((text): EventBody => ({ kind: 'note', text })),
);

const event = (seq: number, b: EventBody, replaces?: number): JobEvent => ({
  seq,
  at: '2026-11-24T08:00:00.000Z',
  bench: 'Bench 1',
  actor: 'Bench 2',
  body: b,
  replaces,
});
const jobs = fc.array(body, { maxLength: 25 }).map((bodies) => bodies.map((b, i) => event(i + 1, b)));

describe('the fold over any events', () => {
  test('undoing everything leaves the state of the first event', () => {
    fc.assert(
      fc.property(jobs, (events) => {
        const all = [...events];
        for (let last = foldJob(all).undoable; last; last = foldJob(all).undoable)
          all.push(event(all.length + 1, { kind: 'undo', seq: last.seq }));
        expect(foldJob(all)).toEqual(foldJob(events.slice(0, 1)));
      }),
      { seed: 1 },
    );
  });

  test('a part is never on and off at once, and never listed twice', () => {
    fc.assert(
      fc.property(jobs, (events) => {
        const { absent, replaced } = foldJob(events);
        expect(new Set(absent).size).toBe(absent.length);
        expect(absent.filter((ref) => replaced.includes(ref))).toEqual([]);
      }),
      { seed: 2 },
    );
  });

  test('no event is lost: what counts and what was undone or corrected make up the record', () => {
    fc.assert(
      fc.property(jobs, fc.nat(), (events, pick) => {
        if (events.length === 0) return;
        const target = (pick % events.length) + 1;
        const all = [...events, event(events.length + 1, { kind: 'undo', seq: target })];
        expect(liveEvents(all).map((e) => e.seq)).toEqual(events.map((e) => e.seq).filter((s) => s !== target));
      }),
      { seed: 3 },
    );
  });

  test('reading the state twice gives the same', () => {
    fc.assert(
      fc.property(jobs, (events) => expect(foldJob(events)).toEqual(foldJob(structuredClone(events)))),
      { seed: 4 },
    );
  });
});

describe('what is typed', () => {
  test('a resistance that is shown can be typed again and means the same within its three figures', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 9e5, noNaN: true }), (ohm) => {
        const text = formatOhm(ohm).replace(' kΩ', 'k').replace(' Ω', '');
        const parsed = parseFigure(text);
        expect(parsed.ok && Math.abs(parsed.value / ohm - 1)).toBeLessThan(0.051);
      }),
      { seed: 5 },
    );
  });

  test('every offered completion is a prefix match that extends the line', () => {
    const starts = fc.constantFrom(
      'u',
      'tp',
      'us',
      'try ',
      'usb ',
      'look ',
      'off u',
      'on u',
      'c1 ',
      'fix c',
      'pack ',
      'check ',
    );
    fc.assert(
      fc.property(starts, (text) => {
        for (const completion of completeEntry(board, foldJob([]), text)) {
          const longer = applyCompletion(text, completion);
          expect(longer.startsWith(text)).toBe(true);
          expect(longer.length).toBeGreaterThan(text.length);
        }
      }),
      { seed: 6 },
    );
  });

  test('any text changes a plan or is answered; a plan that comes out is within the station’s range', () => {
    const [station] = demoStations();
    const plan = startingPlan('U4', 'SAC305', 4);
    const words = fc.array(
      fc.constantFrom(
        'step',
        '1',
        '3',
        '380',
        '25s',
        '30l',
        '12mm',
        'off',
        'plate',
        '120',
        '-5',
        'cover',
        'u9',
        'x',
        '9999',
        'drop',
        'add',
      ),
      { maxLength: 5 },
    );
    fc.assert(
      fc.property(words, (list) => {
        const edit = parsePlanEntry(board, station, plan, list.join(' '));
        if (!edit.ok) return edit.problems[0].message.length > 5;
        const { steps } = edit.value.plan;
        return steps.every((s) => s.airSetC === null || (s.airSetC >= station.setC[0] && s.airSetC <= station.setC[1]));
      }),
      { seed: 7, numRuns: 500 },
    );
  });

  test('a line that is accepted is accepted again, in capitals too', () => {
    const lines = [
      'c14 0.4 ohm',
      'usb a 5 0.1',
      'fl1 ab ol',
      'pack out',
      'cc1 drop 0.26',
      'look j1 bad',
      'try data works',
    ];
    const state = foldJob([]);
    for (const line of lines) {
      const plain = parseEntry(board, state, line, 'ohm');
      expect(parseEntry(board, state, `  ${line.toUpperCase()}  `, 'ohm')).toEqual(plain);
      expect(plain.ok).toBe(true);
    }
  });
});

test('a board file with anything cut out or changed is refused in words or still a board, never a crash', () => {
  const raw = JSON.parse(JSON.stringify(board));
  const paths = Object.keys(raw);
  fc.assert(
    fc.property(
      fc.constantFrom(...paths),
      fc.oneof(fc.constant(null), fc.string(), fc.integer(), fc.constant([]), fc.constant({})),
      (key, value) => {
        const parsed = parseBoard({ ...raw, [key]: value });
        return parsed.ok || parsed.problems.every((p) => p.message.length > 5);
      },
    ),
    { seed: 8, numRuns: 200 },
  );
});

test('a merge of any two units of a family is sound and keeps who it is', () => {
  const family = demoFamily('heron-pd');
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 400 }),
      fc.integer({ min: 1, max: 400 }),
      fc.integer({ min: 1, max: 3 }),
      (unit, other, position) => {
        const patient = demoImage(family, { code: 4, unit, position, damagedBytes: 300 });
        const donor = demoImage(family, { code: 4, unit: other, position: 1 });
        const merged = mergeImages(family, { patient, donor }, proposeTransplant(family, { patient, donor }).plan);
        if (!merged.ok) return false;
        const verdict = judgeImage(family, merged.value.bytes);
        const identity = family.regions.find((r) => r.meaning === 'identity')!;
        const mine = (bytes: Uint8Array): string =>
          bytes.slice(identity.offset, identity.offset + identity.length).join();
        return verdict.sound && verdict.position === position && mine(merged.value.bytes) === mine(patient);
      },
    ),
    { seed: 9, numRuns: 25 },
  );
});
