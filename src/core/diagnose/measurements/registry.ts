import { z } from 'zod';
import { contactDrop } from './contact-drop';
import { diodeDrop } from './diode-drop';
import type { MeasurementDefinition } from './definition';
import { functionTest } from './function-test';
import { groundResistance } from './ground-resistance';
import { imageCheck } from './image-check';
import { jointDrop } from './joint-drop';
import { jointLook } from './joint-look';
import { knownGoodSwap } from './known-good-swap';
import { liftedResistance } from './lifted-resistance';
import { meterPattern } from './meter-pattern';
import { pdNegotiation } from './pd-negotiation';
import { portTester } from './port-tester';
import { pressTest } from './press-test';
import { railVoltage } from './rail-voltage';
import { seriesResistance } from './series-resistance';
import { usbMeter } from './usb-meter';
import { visualInspection } from './visual-inspection';
import { warmSpot } from './warm-spot';

/** Every kind of measurement, in the order in which a board offers them: one line each. */
const KINDS = [
  usbMeter,
  visualInspection,
  meterPattern,
  pdNegotiation,
  portTester,
  knownGoodSwap,
  contactDrop,
  functionTest,
  railVoltage,
  groundResistance,
  seriesResistance,
  imageCheck,
  diodeDrop,
  jointDrop,
  jointLook,
  pressTest,
  liftedResistance,
  warmSpot,
] as const;

/** Something that can be measured, independent of where the probe is put. */
export type Measurement = (typeof KINDS)[number] extends infer D
  ? D extends MeasurementDefinition<infer M>
    ? M
    : never
  : never;
export type MeasurementKind = Measurement['kind'];

/** The kinds with their types taken together: what can be asked of any of them. */
export const MEASUREMENT_KINDS = KINDS as unknown as readonly MeasurementDefinition<Measurement>[];

export const measurementKindNames = KINDS.map((k) => k.kind) as [MeasurementKind, ...MeasurementKind[]];

const BY_KIND = new Map(MEASUREMENT_KINDS.map((k) => [k.kind, k]));

/** The definition of a measurement's kind. */
export const definitionOf = <M extends Measurement>({ kind }: M): MeasurementDefinition<M> =>
  BY_KIND.get(kind) as unknown as MeasurementDefinition<M>;

export const definitionOfKind = (kind: MeasurementKind): MeasurementDefinition<Measurement> => BY_KIND.get(kind)!;

export const measurementSchema: z.ZodType<Measurement> = z.discriminatedUnion(
  'kind',
  MEASUREMENT_KINDS.map((k) => k.schema) as unknown as [z.ZodObject<{ kind: z.ZodLiteral<string> }>],
) as unknown as z.ZodType<Measurement>;

/** Lines that answer a measurement; those that begin with a word of their own go before those that begin with a name. */
export const measurementCommands = MEASUREMENT_KINDS.flatMap((k) => k.commands);
