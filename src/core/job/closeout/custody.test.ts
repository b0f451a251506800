import fc from 'fast-check';
import { custodyOf, custodySeal, type EventBody, type JobEvent } from '..';

const sha = (digit: string): string => digit.repeat(64);

/** A job's events as the bench enters them: each image with the seal of what came before. */
function sealed(bodies: readonly EventBody[]): JobEvent[] {
  const events: JobEvent[] = [];
  bodies.forEach((body, k) => {
    const isImage = body.kind === 'image' || body.kind === 'imageWritten';
    const meta = { seq: k + 1, at: `2026-03-0${1 + (k % 9)}T10:00:00Z`, bench: 'Bench 1', actor: 'Bench lead' };
    events.push({ ...meta, body: isImage ? { ...body, after: custodySeal(events) } : body });
  });
  return events;
}

const image = fc.record({
  kind: fc.constant('image' as const),
  role: fc.constantFrom('patient' as const, 'donor' as const, 'merged' as const, 'before' as const),
  sha256: fc.constantFrom(...'0123456789abcdef').map(sha),
  name: fc.string({ maxLength: 12 }),
  sizeBytes: fc.integer({ min: 1, max: 1 << 20 }),
  sound: fc.boolean(),
});
const written = fc.record({
  kind: fc.constant('imageWritten' as const),
  ref: fc.constant('U9'),
  sha256: fc.constantFrom(...'0123456789abcdef').map(sha),
});
const note = fc.record({ kind: fc.constant('note' as const), text: fc.constant('looked again') });
const bodies = fc.array(fc.oneof(image, written, note), { minLength: 3, maxLength: 9 });

test('a chain as it was entered holds; notes between do not matter', () => {
  fc.assert(
    fc.property(bodies, (list) => custodyOf(sealed(list)).every((l) => l.holds === true)),
    { seed: 4 },
  );
});

test('an image that is left out, put in or changed before the last breaks the chain', () => {
  const isLink = (e: JobEvent): boolean => e.body.kind !== 'note';
  const holds = (events: readonly JobEvent[]): boolean => custodyOf(events).every((l) => l.holds !== false);
  fc.assert(
    fc.property(bodies, fc.nat(), (list, pick) => {
      const events = sealed(list);
      const links = events.filter(isLink);
      if (links.length < 2) return true;
      const one = links[pick % (links.length - 1)];
      const without = events.filter((e) => e !== one);
      const twice = events.flatMap((e) => (e === one ? [e, e] : [e]));
      const changed = events.map((e) => (e === one ? { ...e, at: '2026-01-01T00:00:00Z' } : e));
      return ![without, twice, changed].some(holds);
    }),
    { seed: 5 },
  );
});

test('the same entry gives the same link, in whatever order its keys were stored', () => {
  const [event] = sealed([{ kind: 'imageWritten', ref: 'U9', sha256: sha('a') }]);
  const turned = { ...event, body: Object.fromEntries(Object.entries(event.body).reverse()) as EventBody };
  expect(custodyOf([turned])[0].link).toBe(custodyOf([event])[0].link);
});

test('what was undone stays in the chain, marked', () => {
  const events = sealed([{ kind: 'imageWritten', ref: 'U9', sha256: sha('a') }]);
  const undo: JobEvent = { ...events[0], seq: 2, body: { kind: 'undo', seq: 1 } };
  expect(custodyOf([...events, undo])).toMatchObject([{ undone: true, holds: true }]);
});
