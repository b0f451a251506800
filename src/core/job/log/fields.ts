import { accessFor, currentKey, deeper, jointsOf, targetKey } from '../../diagnose';
import type { EventBody } from './events/registry';
import type { JobEvent, UnreadableBody } from './log';
import { foldSoak } from './soak';
import type { JobFields, KeptTrace } from './state';

type Body = EventBody | UnreadableBody;

/** What a field may ask while it changes: the event, and every field as it was before it. */
interface Step {
  readonly event: Pick<JobEvent, 'seq' | 'at'>;
  readonly before: JobFields;
}

/** One field of a job's state: how it begins, what changes it, and what of it survives when the job comes back. */
interface Field<T> {
  readonly start: T;
  readonly update: (value: T, body: Body, step: Step) => T;
  /** When a closed job comes back it begins anew, but for the fields that say otherwise. */
  readonly reopened?: (value: T, step: Step & { readonly symptom: string }) => T;
}

const without = <T>(kept: Readonly<Record<string, T>>, name: string): Readonly<Record<string, T>> =>
  Object.fromEntries(Object.entries(kept).filter(([key]) => key !== name));

const except = (list: readonly string[], name: string): string[] => list.filter((item) => item !== name);
const including = <T>(list: readonly T[], item: T): readonly T[] => [...new Set([...list, item])];

/** What was mended, by the key under which it is kept: the joints of a part are those of the one that is on the board. */
const mendedKey = (what: string, replaced: readonly string[]): string => {
  const ref = jointsOf(what);
  return ref === undefined ? what : currentKey({ kind: 'joints', ref }, replaced);
};

/** Events after which the board is another one: what was read before them proves nothing any more. */
const isWork = ({ kind }: Body): boolean =>
  kind === 'partOff' || kind === 'partOn' || kind === 'mended' || kind === 'imageWritten';

/** A field that holds the latest event of one type. */
const latest = <K extends EventBody['kind']>(kind: K): Field<Extract<EventBody, { kind: K }> | undefined> => ({
  start: undefined,
  update: (value, body) => (body.kind === kind ? (body as Extract<EventBody, { kind: K }>) : value),
});

/** A field that holds the latest event of one type for each part. */
const latestByPart = <K extends 'inspection' | 'padLook'>(
  kind: K,
): Field<Readonly<Record<string, Extract<EventBody, { kind: K }>>>> => ({
  start: {},
  update: (value, body) =>
    body.kind === kind ? { ...value, [body.ref]: body as Extract<EventBody, { kind: K }> } : value,
});

/** A write that was broken off reads a half-written chip when it goes on: the original stays the one before it. */
const isHalfWritten = (body: Body, { before }: Step): boolean =>
  body.kind === 'image' && body.role === 'before' && before.writing;

/** The way of a trace, as `J1 A`. */
const wayOf = ({ port, side }: Pick<KeptTrace, 'port' | 'side'>): string => `${port} ${side}`;

/** Every field of the state; one that is missing is a compile error. */
export const JOB_FIELDS: { readonly [K in keyof Required<JobFields>]: Field<JobFields[K]> } = {
  story: {
    ...latest('story'),
    // That somebody was in it is part of the story by then.
    reopened: (story, { symptom }) =>
      story && { ...story, symptom, history: [...including(story.history, 'earlierRepair')] },
  },
  device: { ...latest('device'), reopened: (device) => device },
  readings: {
    start: [],
    update(readings, body, { event: { seq, at }, before }) {
      if (body.kind !== 'reading') return readings;
      const { measurement, value } = body;
      const { absent, replaced, swapped, packOut, work } = before;
      // A swap itself is judged as if what was used before were still in line.
      return [...readings, { seq, at, measurement, value, absent, replaced, swapped, packOut, work }];
    },
  },
  access: {
    start: 'closed',
    update(access, body) {
      switch (body.kind) {
        case 'reading':
          return deeper(access, accessFor(body.measurement));
        case 'access':
          return body.access;
        case 'partOff':
        case 'shield':
        case 'mended':
          return 'out';
        default:
          return access;
      }
    },
  },
  removedShields: {
    start: [],
    update: (removed, body) =>
      body.kind === 'shield' ? [...except(removed, body.id), ...(body.off ? [body.id] : [])] : removed,
  },
  packOut: { start: false, update: (out, body) => (body.kind === 'pack' ? body.state === 'out' : out) },
  absent: {
    start: [],
    update(absent, body) {
      if (body.kind === 'partOff') return [...except(absent, body.ref), body.ref];
      return body.kind === 'partOn' ? except(absent, body.ref) : absent;
    },
  },
  replaced: {
    start: [],
    update(replaced, body) {
      switch (body.kind) {
        case 'partOn':
          // Each new part counts: the second one on a place is another than the first.
          return body.fresh ? [...replaced, body.ref] : replaced;
        case 'mended':
          return [...replaced, mendedKey(body.what, replaced)];
        case 'imageWritten':
          return [...replaced, targetKey({ kind: 'image', ref: body.ref })];
        default:
          return replaced;
      }
    },
  },
  doneSince: {
    start: [],
    update(done, body) {
      switch (body.kind) {
        case 'decision':
          return [];
        case 'partOff':
          return except(done, body.ref);
        case 'partOn':
          return body.fresh ? including(done, body.ref) : done;
        case 'mended':
          return including(done, body.what);
        case 'imageWritten':
          return including(done, targetKey({ kind: 'image', ref: body.ref }));
        default:
          return done;
      }
    },
  },
  placed: {
    start: {},
    update(placed, body, { event }) {
      if (body.kind === 'partOff') return without(placed, body.ref);
      return body.kind === 'partOn' ? { ...placed, [body.ref]: event.seq } : placed;
    },
  },
  work: {
    start: 0,
    update: (work, body, { event }) => (isWork(body) ? event.seq : work),
    reopened: (_work, { event }) => event.seq,
  },
  swapped: {
    start: [],
    update: (swapped, body) =>
      body.kind === 'reading' && body.measurement.kind === 'knownGoodSwap'
        ? including(swapped, body.measurement.what)
        : swapped,
  },
  decision: latest('decision'),
  route: {
    start: undefined,
    update(route, body) {
      if (body.kind === 'route') return body;
      return body.kind === 'decision' && route?.ref !== body.ref ? undefined : route;
    },
  },
  heatPlan: latest('heatPlan'),
  site: latest('site'),
  lifted: {
    start: {},
    update: (lifted, body) => (body.kind === 'lifted' ? { ...lifted, [body.ref]: body.pins } : lifted),
    // The damage stays.
    reopened: (lifted) => lifted,
  },
  inspections: latestByPart('inspection'),
  padLooks: latestByPart('padLook'),
  flatness: {
    start: {},
    update(flatness, body) {
      if (body.kind === 'flatness') return { ...flatness, [body.ref]: body };
      return body.kind === 'partOff' ? without(flatness, body.ref) : flatness;
    },
  },
  runEvents: { start: [], update: (events, body) => (body.kind === 'run' ? [...events, body] : events) },
  images: {
    start: {},
    update: (images, body, step) =>
      body.kind === 'image' && !isHalfWritten(body, step) ? { ...images, [body.role]: body } : images,
  },
  written: latest('imageWritten'),
  writing: {
    start: false,
    update(writing, body) {
      if (body.kind === 'imageWritten') return false;
      return writing || (body.kind === 'image' && body.role === 'before');
    },
  },
  traces: {
    start: {},
    update: (traces, body, { before }) =>
      body.kind === 'trace' ? { ...traces, [wayOf(body)]: { ...body, work: before.work } } : traces,
  },
  tracesBefore: {
    start: {},
    update(tracesBefore, body, { before }) {
      if (body.kind !== 'trace') return tracesBefore;
      const last = before.traces[wayOf(body)];
      return last && last.work < before.work ? { ...tracesBefore, [wayOf(body)]: last } : tracesBefore;
    },
  },
  captures: {
    start: {},
    update: (captures, body) => (body.kind === 'capture' ? { ...captures, [body.port]: body } : captures),
  },
  pictures: { start: [], update: (pictures, body) => (body.kind === 'picture' ? [...pictures, body] : pictures) },
  soaks: {
    start: [],
    update: (soaks, body, { event }) => (body.kind === 'soak' ? foldSoak(soaks, body, event.at) : soaks),
  },
  promise: latest('promise'),
  quote: latest('quote'),
  delivery: latest('delivery'),
  notes: { start: [], update: (notes, body) => (body.kind === 'note' ? [...notes, body.text] : notes) },
  closed: {
    start: undefined,
    update: (closed, body, { event }) => (body.kind === 'close' ? { ...body, at: event.at } : closed),
  },
  priorClosures: {
    start: [],
    update: (closures) => closures,
    reopened: (closures, { before, event }) => [
      ...closures,
      { state: { ...before, priorClosures: [] }, reopenedAt: event.at },
    ],
  },
  unreadable: {
    start: [],
    update: (rows, body, { event }) =>
      body.kind === 'unreadable' ? [...rows, { seq: event.seq, problem: body.problem }] : rows,
    reopened: (rows) => rows,
  },
};
