import { z } from 'zod';

/** The circuits that recur round a port, and what tells each by look. */
export const ARCHETYPES = {
  onePort: {
    words: 'One port, its controller and the charger apart',
    look: 'A chip by the port and another beside the coil',
  },
  sharedMemory: {
    words: 'Several ports that share one memory',
    look: 'A controller at each port, one eight-legged memory among them, one charger',
  },
  oneChip: {
    words: 'Port and charge control in one chip',
    look: 'The wires of the port go to the chip beside the coil',
  },
  fiveVolts: {
    words: 'A 5 V port with an interface chip, no power delivery',
    look: 'A small chip tells accessories; the meter stays at 5 V on a good device',
  },
  dock: { words: 'One port that drives a dock’s picture', look: 'A bridge or mux chip of its own at the fast pairs' },
} as const;
export type ArchetypeId = keyof typeof ARCHETYPES;
const archetypeIds = Object.keys(ARCHETYPES) as [ArchetypeId, ...ArchetypeId[]];

/** Levels that a port may be designed for, V. Source: USB Power Delivery, fixed supplies of the standard range. */
export const DESIGN_LEVELS_V = [5, 9, 12, 15, 20] as const;

/** How thick a board looks: what stands for it, mm and layers. Common practice, no source. */
export const STACKS = {
  thin: { words: 'thin, as in a phone', thicknessMm: 0.7, layers: 10 },
  usual: { words: 'usual, as in a tablet', thicknessMm: 1, layers: 8 },
  thick: { words: 'thick, as in a desk machine', thicknessMm: 1.6, layers: 6 },
} as const;
const stackIds = Object.keys(STACKS) as [keyof typeof STACKS, ...(keyof typeof STACKS)[]];

export const MOST_PORTS = 4;
/** A board smaller than its port, or larger than any that lies under a microscope, is a typing slip, mm. */
const SIDE_MM = { least: 12, most: 400 };

/** What is asked before a board is drawn: eight questions at most, each answered by looking. */
export const answersSchema = z.object({
  device: z.string().trim().min(1, 'expected what the device is called').max(60),
  archetype: z.enum(archetypeIds),
  ports: z.number().int().min(1).max(MOST_PORTS).describe('asked where several ports share one memory'),
  designV: z.union(DESIGN_LEVELS_V.map((v) => z.literal(v))),
  memory: z.boolean().describe('an eight-legged memory beside the controller'),
  controllerPackage: z.string().max(40),
  chargerPackage: z.string().max(40),
  sizeMm: z
    .tuple([z.number().min(SIDE_MM.least).max(SIDE_MM.most), z.number().min(SIDE_MM.least).max(SIDE_MM.most)])
    .describe('width and height as it lies with its front up'),
  stack: z.enum(stackIds),
});
export type Answers = z.infer<typeof answersSchema>;

/** What is answered before anything is said. */
export const FIRST_ANSWERS: Answers = {
  device: '',
  archetype: 'onePort',
  ports: 1,
  designV: 20,
  memory: true,
  controllerPackage: 'QFN-40-0.5',
  chargerPackage: 'QFN-32-0.5',
  sizeMm: [60, 40],
  stack: 'usual',
};
