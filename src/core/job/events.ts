import { z } from 'zod';
import { HISTORY_FLAGS, measurementSchema, valueSchema } from '../diagnose';
import { heatPlanSchema } from '../heat';
import { ROUTE_ACTIONS, VERDICTS } from '../parts';
import { runEventSchema } from '../run';

const ref = z.string().regex(/^[A-Z]{1,3}[0-9]{1,4}$/);
const damaged = z.string().regex(/^[A-Z][A-Z0-9_]{0,23}$/);
const words = z.string().trim().min(1).max(400);
const sha256 = z.string().regex(/^[0-9a-f]{64}$/);

export const OUTCOMES = ['repaired', 'stopped', 'returned'] as const;

/** A decoded message as it is kept: enough to read the dialogue again. */
const packetSchema = z.object({
  atS: z.number(),
  set: z.enum(['SOP', "SOP'", "SOP''", 'Hard Reset', 'Cable Reset']),
  headerWord: z.number().int().nullable(),
  objects: z.array(z.number().int()).max(7),
  intact: z.boolean(),
});

const storySchema = z.object({
  kind: z.literal('story'),
  symptom: words,
  history: z.array(z.enum(HISTORY_FLAGS)),
  dataMatters: z.boolean(),
  locked: z.boolean(),
  consent: z.boolean().describe('the owner agreed to risky steps'),
  pack: z.enum(['sound', 'swollen', 'none']),
  worth: z
    .number()
    .min(0)
    .max(1_000_000)
    .optional()
    .describe('what the device is worth to its owner, in the shop’s money'),
});

const pin = z.string().regex(/^[A-Z0-9]{1,6}$/);

/** A ball as a picture or the bench says it is. */
const ballSchema = z.object({
  pin,
  state: z.enum(['good', 'missing', 'small', 'large', 'beside']),
  diameterMm: z.number().min(0).max(5),
  sdMm: z.number().min(0).max(5).nullable().describe('null where the picture does not say'),
  unclear: z.boolean().default(false).describe('left to the eye'),
  byHand: z.boolean().default(false).describe('set right by the bench'),
});

/** Balls looked over in a picture. */
const inspectionSchema = z.object({
  kind: z.literal('inspection'),
  ref,
  sha256: sha256.describe('the picture, kept with the images'),
  name: z.string().max(200),
  width: z.number().int().positive().optional().describe('of the picture, px'),
  height: z.number().int().positive().optional(),
  toPicture: z.array(z.number()).length(8).describe('from pitches, the middle of the array at the origin, to pixels'),
  mmPerPx: z.number().positive(),
  balls: z.array(ballSchema).min(1).max(2500),
  bridges: z.array(z.tuple([pin, pin])).max(2500),
  crumbs: z
    .array(z.tuple([z.number(), z.number()]))
    .max(500)
    .describe('bits that do not belong there, in pitches'),
  words,
  holds: z.boolean(),
});

/** Pads of a cleaned site looked over in a picture. */
const padLookSchema = z.object({
  kind: z.literal('padLook'),
  ref,
  sha256: sha256.describe('the picture, kept with the images'),
  name: z.string().max(200),
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  toPicture: z.array(z.number()).length(8).describe('from mm in the package’s own frame to pixels'),
  pads: z
    .array(z.object({ pin, state: z.enum(['even', 'lifted', 'uneven']), unclear: z.boolean(), byHand: z.boolean() }))
    .min(1)
    .max(2500),
  bridges: z.array(z.tuple([pin, pin])).max(2500),
  words,
  holds: z.boolean(),
});

/** What can happen to a job. A reading keeps only what was measured: the board's state comes from the fold. */
/** `before`: what a chip held when it was written over. */
export const IMAGE_ROLES = ['patient', 'donor', 'merged', 'before'] as const;

/** What a merged image was made of, so that it can be made again. */
const madeOfSchema = z.object({
  patient: sha256,
  donor: sha256.optional(),
  family: z.string().describe('the map with its revision, as heron-pd/2'),
  base: z.enum(['patient', 'donor']),
  take: z.record(z.string(), z.enum(['patient', 'donor', 'copy', 'computed'])),
  set: z.record(z.string(), z.number().int().min(0)),
  reason: z.enum(['pairMoves', 'sameUnit']).optional(),
});

const seal = sha256.optional().describe('the chain of custody up to here: SHA-256 of the link before');

export const eventBodySchema = z.discriminatedUnion('kind', [
  storySchema,
  z.object({ kind: z.literal('reading'), measurement: measurementSchema, value: valueSchema }),
  z.object({ kind: z.literal('access'), access: z.enum(['closed', 'open', 'out']) }),
  z.object({ kind: z.literal('pack'), state: z.enum(['in', 'out']) }),
  z.object({ kind: z.literal('partOff'), ref }),
  z.object({ kind: z.literal('partOn'), ref, fresh: z.boolean().describe('a new part, not the one taken off') }),
  z.object({ kind: z.literal('shield'), id: damaged.describe('the shield'), off: z.boolean() }),
  z.object({
    kind: z.literal('mended'),
    what: damaged.describe('the rail whose trace was mended, or the screw whose damage was'),
  }),
  z.object({
    kind: z.literal('decision'),
    action: z.enum(['replace', 'rewrite', 'mend', 'stop']),
    ref: damaged.nullable().describe('the part; to mend the board the rail or the screw'),
    words,
  }),
  z.object({
    kind: z.literal('route'),
    ref: ref.describe('the place'),
    typeId: z.string().min(1),
    offer: z.string().min(1).max(80).describe('where the chip comes from: C-105, L-12, D-3/U13, buy heron-pd-r2'),
    words,
    verdict: z.enum(VERDICTS),
    off: z.array(ref).max(12).describe('parts that come off for it, the place first'),
    actions: z
      .array(z.object({ kind: z.enum(ROUTE_ACTIONS), words }))
      .max(20)
      .describe('in their order'),
    prove: z.array(z.string()).max(20).describe('functions that show whether it works'),
  }),
  z.object({
    kind: z.literal('heatPlan'),
    plan: heatPlanSchema,
    stationId: z.string(),
    finding: words,
    liftAtS: z.number().nullable(),
    holds: z.boolean(),
  }),
  z.object({ kind: z.literal('site'), ref, words }),
  z.object({
    kind: z.literal('lifted'),
    ref,
    pins: z.array(pin).max(2500).describe('all pads that are off; none: all hold'),
  }),
  inspectionSchema,
  padLookSchema,
  z.object({
    kind: z.literal('flatness'),
    ref,
    readings: z
      .array(z.object({ xMm: z.number(), yMm: z.number(), heightMm: z.number() }))
      .min(3)
      .max(40),
    words,
    holds: z.boolean(),
  }),
  runEventSchema,
  z.object({
    kind: z.literal('image'),
    role: z.enum(IMAGE_ROLES),
    sha256,
    name: z.string().max(200),
    sizeBytes: z.number().int().min(0),
    sound: z.boolean(),
    madeOf: madeOfSchema.optional(),
    after: seal,
  }),
  z.object({ kind: z.literal('imageWritten'), ref, sha256, after: seal }),
  z.object({
    kind: z.literal('trace'),
    port: z.string(),
    side: z.enum(['A', 'B']),
    name: z.string().max(200),
    timesS: z.array(z.number()).min(3).max(1200),
    volts: z.array(z.number()).min(3).max(1200),
    amps: z.array(z.number()).min(3).max(1200),
  }),
  z.object({
    kind: z.literal('capture'),
    port: z.string(),
    name: z.string().max(200),
    line: z.enum(['CC1', 'CC2']).nullable(),
    durationS: z.number(),
    packets: z.array(packetSchema).max(400),
  }),
  z.object({
    kind: z.literal('picture'),
    sha256: sha256.describe('the picture as it was masked; nothing else of it is kept'),
    words: words.describe('what it shows'),
    masks: z.number().int().min(0).describe('private areas that were covered'),
  }),
  z.object({
    kind: z.literal('soak'),
    act: z.enum(['start', 'restart', 'end']),
    minutes: z.number().min(1).max(1440).optional().describe('how long, at its start'),
  }),
  z.object({ kind: z.literal('note'), text: words }),
  z.object({
    kind: z.literal('close'),
    outcome: z.enum(OUTCOMES),
    cause: z.string().trim().max(400).describe('what the owner is told about the cause'),
    reason: z.string().trim().max(400).optional().describe('why it closes with gates open'),
    minutes: z.number().min(0).max(10_000).optional().describe('bench work'),
    price: z.number().min(0).max(1_000_000).optional().describe('what the owner pays'),
  }),
  z.object({ kind: z.literal('reopen'), symptom: words.describe('with what it came back, in the owner’s words') }),
  z.object({ kind: z.literal('undo'), seq: z.number().int().positive() }),
]);

export const jobEventSchema = z.object({
  seq: z.number().int().positive(),
  at: z.string().describe('ISO 8601 time'),
  bench: z.string(),
  actor: z.string(),
  /** The event that this one corrects; the corrected one is kept. */
  replaces: z.number().int().positive().optional(),
  body: eventBodySchema,
});

/** The chip that was chosen for a place. */
export type ChosenRoute = Extract<z.infer<typeof eventBodySchema>, { kind: 'route' }>;
export type EventBody = z.infer<typeof eventBodySchema>;
export type Story = z.infer<typeof storySchema>;
export type JobEvent = z.infer<typeof jobEventSchema>;
/** Balls of a part as a picture shows them. */
export type BallInspection = z.infer<typeof inspectionSchema>;
/** Pads of a cleaned site as a picture shows them. */
export type PadInspectionKept = z.infer<typeof padLookSchema>;
export type ImageRole = (typeof IMAGE_ROLES)[number];
export type Outcome = (typeof OUTCOMES)[number];

/** How a screen keeps an event: it answers when the event is on disk, or says why it is not kept. */
export type KeepEvent = (
  number: number,
  body: EventBody,
  key: string,
) => Promise<{ readonly kept: boolean; readonly words: string; readonly seq?: number }>;
