import { z } from 'zod';
import type { NetName, PartRef, RailId } from '../identities';

/**
 * The open board format `unisolda-board/2`. Lengths in mm, x to the right and y down as seen from the front,
 * origin at the top left of the outline; angles in degrees, clockwise; back-side parts keep front-view coordinates.
 */
export const refText: z.ZodType<PartRef, string> = z
  .string()
  .regex(/^[A-Za-z][A-Za-z0-9_.+-]{0,31}$/, 'expected a reference designator such as C14 or J_USB1');
/** As they stand in files: any letters and signs but blanks, quotes and those that part names in the record. */
const nameInFiles = z
  .string()
  .regex(/^(?=.*[^\d.,])[^\s:~"|,;]{1,64}$/u, 'expected a net name without blanks such as AON33 or /usb.port/Vbus');
export const netName: z.ZodType<NetName, string> = nameInFiles;
export const railName: z.ZodType<RailId, string> = nameInFiles;
/** A part, rail, net, screw or shield, where any of them may stand. */
export const boardThing: z.ZodType<string, string> = nameInFiles;
/** Bounds of one board: what is larger is no board but a mistake, and would stop the page that reads it. */
const MOST_PARTS = 5000;
const MOST_PINS = 4000;
const MOST_ROWS = 100;
const MOST_CORNERS = 20_000;

const positive = z.number().positive();
const pairMm = z.tuple([positive, positive]);
const pointMm = z.tuple([z.number(), z.number()]);

export const PART_KINDS = [
  'portController',
  'chargeController',
  'converter',
  'mux',
  'processor',
  'sensorHub',
  'flash',
  'fuse',
  'lineFilter',
  'esdArray',
  'clampDiode',
  'mosfet',
  'coil',
  'capacitor',
  'resistor',
  'crystal',
  'connector',
  'batteryConnector',
] as const;

/** What each kind of part is called. */
export const PART_KIND_WORDS: Readonly<Record<PartKind, string>> = {
  portController: 'port controller',
  chargeController: 'charge controller',
  converter: 'converter',
  mux: 'mux, redriver',
  processor: 'processor',
  sensorHub: 'sensor hub',
  flash: 'configuration flash',
  fuse: 'fuse',
  lineFilter: 'line filter',
  esdArray: 'ESD array',
  clampDiode: 'clamp diode',
  mosfet: 'MOSFET',
  coil: 'coil',
  capacitor: 'capacitor',
  resistor: 'resistor',
  crystal: 'crystal',
  connector: 'connector',
  batteryConnector: 'battery connector',
};

const landsSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('two'), pitchMm: positive, padMm: pairMm }).describe('two pads along x; pin 1 left'),
  z
    .object({
      kind: z.literal('quad'),
      pins: z.number().int().multipleOf(4).min(4).max(MOST_PINS),
      pitchMm: positive,
      padMm: pairMm,
      spanMm: pairMm,
      centreMm: pairMm.optional(),
    })
    .describe('four sides, counter-clockwise from the top of the left side; the centre pad is pin EP'),
  z
    .object({
      kind: z.literal('dual'),
      pins: z.number().int().multipleOf(2).min(2).max(MOST_PINS),
      pitchMm: positive,
      padMm: pairMm,
      spanMm: positive,
      centreMm: pairMm.optional(),
    })
    .describe('two sides, down the left and up the right; the centre pad is pin EP'),
  z
    .object({
      kind: z.literal('array'),
      columns: z.number().int().positive().max(MOST_ROWS),
      rows: z.number().int().positive().max(MOST_ROWS),
      pitchMm: positive,
      padMm: positive,
      ballMm: positive,
      without: z
        .array(z.string())
        .max(MOST_ROWS ** 2)
        .optional()
        .describe('places of the grid that hold no ball, such as C3'),
    })
    .describe('balls on a grid, A1 at the top left'),
  z
    .object({
      kind: z.literal('list'),
      pads: z
        .array(z.object({ pin: z.string().max(24), xMm: z.number(), yMm: z.number(), wMm: positive, hMm: positive }))
        .min(1)
        .max(MOST_PINS),
    })
    .describe('every pad by hand'),
]);

export const packageSchema = z.object({
  bodyMm: pairMm,
  heightMm: positive,
  lands: landsSchema,
  plastic: z.boolean().default(false).describe('a plastic body that softens long before solder melts'),
});

/** What may be assumed of a part rather than known. */
export const ASSUMPTIONS = ['place', 'package', 'pins', 'value'] as const;
/** What may be assumed of the bare board. */
export const BOARD_ASSUMPTIONS = ['outline', 'stack', 'parts', 'circuit'] as const;

export const partSchema = z.object({
  ref: refText,
  kind: z.enum(PART_KINDS),
  what: z.string().min(1).describe('what it is, in words'),
  package: z.string(),
  xMm: z.number(),
  yMm: z.number(),
  rotationDeg: z.number().default(0),
  side: z.enum(['front', 'back']).default('front'),
  pins: z.record(z.string(), netName),
  ohm: positive.optional().describe('nominal resistance of a resistor'),
  loadsOhm: z.record(netName, positive).default({}).describe('normal resistance to ground that the part puts on a net'),
  loadsWithin: z
    .record(netName, z.number().min(1))
    .optional()
    .describe('95 of 100 boards lie within this factor of a load; 1 or left out where it is known'),
  assumed: z
    .array(z.enum(ASSUMPTIONS))
    .optional()
    .describe('what of this part nobody has looked up yet: its place, its package, which of its pins is on which net'),
  jointLimitC: positive
    .optional()
    .describe('temperature its own joints must stay below while a neighbour is worked on'),
  bodyLimitC: positive.optional().describe('package or plastic ceiling'),
  underfilled: z.boolean().default(false),
  optional: z.boolean().default(false).describe('may stay off after a proof'),
  required: z.boolean().default(false).describe('the system restarts again and again without it'),
});

const railFeed = z.object({
  from: z.string().nullable().describe('the rail it comes from; null for the port'),
  via: z.array(refText).default([]).describe('parts in series that must conduct'),
  by: refText.nullable().default(null).describe('the converter that makes it; null when it is passed on'),
  needs: z.array(z.enum(['talk', 'image'])).default([]),
});

export const railSchema = z.object({
  id: railName,
  net: netName,
  expect: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('bus') }),
    z.object({ kind: z.literal('fixed'), volts: positive }),
  ]),
  tolerance: z.number().positive().max(0.5).default(0.05).describe('share of the expected value'),
  feeds: z.array(railFeed).min(1),
  port: z.string().optional().describe('the port that must be plugged in to measure it'),
  note: z.string().optional(),
});

export const portSchema = z.object({
  id: refText.describe('the connector'),
  designV: positive,
  healthyA: z
    .tuple([z.number().min(0), positive])
    .describe('lowest and highest healthy current with a partly charged pack'),
  controller: refText,
  imagePart: refText.describe('the memory that holds the controller’s image; none where it keeps its own').optional(),
  controllerRails: z.array(railName).min(1).describe('rails that the controller needs before it can talk'),
  vbusRail: railName,
  sides: z.array(z.object({ side: z.enum(['A', 'B']), ccNet: netName, path: z.array(refText) })).length(2),
});

/** The bare board; in the housing with what it needs; closed up. */
export const ASSEMBLY_STATES = ['board', 'part', 'whole'] as const;
export type AssemblyState = (typeof ASSEMBLY_STATES)[number];

export const functionSchema = z.object({
  id: z.string().regex(/^[a-z][a-z0-9-]*$/),
  what: z.string(),
  parts: z.array(refText).min(1),
  rails: z.array(railName).default([]),
  minutes: positive,
  assembly: z.enum(ASSEMBLY_STATES).default('board').describe('how far the device is put together to try it'),
});

/** A place whose part type matters: what it was built with, and what a replacement has to bring. */
export const slotSchema = z.object({
  ref: refText,
  type: z.string().min(1).describe('the part type it was built with, as the part library names it'),
  supply: railName.optional().describe('the rail that supplies it'),
  position: z.string().optional().describe('which of several alike it is, such as port-2'),
  straps: z.object({ top: refText, bottom: refText }).optional().describe('the divider that tells it its position'),
  image: refText.optional().describe('the memory that holds its image'),
  functions: z.array(z.string()).default([]).describe('functions that show whether it works'),
});

export const boardSchema = z.object({
  format: z.literal('unisolda-board/2'),
  id: z.string().regex(/^[a-z0-9-]+$/),
  device: z.string().min(1),
  name: z.string().min(1),
  revision: z.string().min(1),
  outlineMm: z.array(pointMm).min(3).max(MOST_CORNERS),
  thicknessMm: positive,
  layers: z
    .array(z.object({ name: z.string(), copperUm: z.number().min(0), coverage: z.number().min(0).max(1) }))
    .min(1),
  copperAreas: z
    .array(
      z.object({
        what: z.string().min(1),
        outlineMm: z.array(pointMm).min(3),
        coverage: z.number().min(0).max(1).describe('share of copper in every layer there'),
      }),
    )
    .default([])
    .describe('places with other copper than the layers say: ground areas, bare laminate; the later one counts'),
  alloy: z.enum(['SAC305', 'Sn63Pb37', 'Sn42Bi58']).default('SAC305').describe('solder on the board as built'),
  packages: z.record(z.string(), packageSchema),
  nets: z.record(
    netName,
    z.object({
      role: z.enum(['ground', 'power', 'signal', 'switch']),
      diodeV: positive.optional().describe('normal diode-mode drop'),
      diodeWithinV: positive
        .optional()
        .describe('95 of 100 boards lie within so many volts of diodeV; left out where it is known'),
      lowByNature: z.boolean().default(false),
    }),
  ),
  parts: z.array(partSchema).min(1).max(MOST_PARTS),
  points: z.array(
    z.object({
      id: refText,
      net: netName,
      xMm: z.number(),
      yMm: z.number(),
      side: z.enum(['front', 'back']).default('front'),
    }),
  ),
  ports: z.array(portSchema).min(1).max(64),
  screws: z
    .array(z.object({ id: refText, xMm: z.number(), yMm: z.number() }))
    .default([])
    .describe('where a screw of the wrong length can reach the board'),
  shields: z
    .array(
      z.object({
        id: refText,
        xMm: z.number().describe('centre'),
        yMm: z.number(),
        sizeMm: pairMm,
        side: z.enum(['front', 'back']).default('front'),
        minutes: positive.default(8).describe('to take it off'),
      }),
    )
    .default([])
    .describe('metal cans over a part of the board; what lies under one is measured with it off'),
  rails: z.array(railSchema).min(1).max(500),
  functions: z.array(functionSchema).max(500),
  slots: z.array(slotSchema).default([]).describe('places whose part type matters'),
  imageFamily: z.string().optional(),
  assumed: z
    .array(z.enum(BOARD_ASSUMPTIONS))
    .optional()
    .describe(
      'what of the board was taken by look: its outline, its layers and thickness; that not every part is drawn; that nobody has said which circuit it is',
    ),
});

export type Board = z.infer<typeof boardSchema>;
export type Part = z.infer<typeof partSchema>;
export type PartKind = Part['kind'];
export type Assumption = (typeof ASSUMPTIONS)[number];
export type PartPackage = z.infer<typeof packageSchema>;
export type Rail = z.infer<typeof railSchema>;
export type Port = z.infer<typeof portSchema>;
export type Slot = z.infer<typeof slotSchema>;
export type Shield = Board['shields'][number];
export type Side = 'front' | 'back';
export type PlugSide = 'A' | 'B';
export type BoardFunction = z.infer<typeof functionSchema>;
export type TestPoint = Board['points'][number];
