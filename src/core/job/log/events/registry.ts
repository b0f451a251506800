import { z } from 'zod';
import type { EventDefinition } from './definition';
import { accessEvent } from './access';
import { captureEvent } from './capture';
import { closeEvent } from './close';
import { decisionEvent } from './decision';
import { deliveryEvent } from './delivery';
import { deviceEvent } from './device';
import { flatnessEvent } from './flatness';
import { heatPlanEvent } from './heat-plan';
import { imageEvent } from './image';
import { imageWrittenEvent } from './image-written';
import { inspectionEvent } from './inspection';
import { liftedEvent } from './lifted';
import { mendedEvent } from './mended';
import { noteEvent } from './note';
import { packEvent } from './pack';
import { padLookEvent } from './pad-look';
import { partOffEvent } from './part-off';
import { partOnEvent } from './part-on';
import { pictureEvent } from './picture';
import { promiseEvent } from './promise';
import { quoteEvent } from './quote';
import { readingEvent } from './reading';
import { reopenEvent } from './reopen';
import { routeEvent } from './route';
import { runEvent } from './run';
import { shieldEvent } from './shield';
import { siteEvent } from './site';
import { soakEvent } from './soak';
import { storyEvent } from './story';
import { traceEvent } from './trace';
import { undoEvent } from './undo';

/** Every type of event: one line each. */
const TYPES = [
  storyEvent,
  deviceEvent,
  readingEvent,
  accessEvent,
  packEvent,
  partOffEvent,
  partOnEvent,
  shieldEvent,
  mendedEvent,
  decisionEvent,
  routeEvent,
  heatPlanEvent,
  siteEvent,
  liftedEvent,
  inspectionEvent,
  padLookEvent,
  flatnessEvent,
  runEvent,
  imageEvent,
  imageWrittenEvent,
  traceEvent,
  captureEvent,
  pictureEvent,
  soakEvent,
  noteEvent,
  promiseEvent,
  deliveryEvent,
  quoteEvent,
  closeEvent,
  reopenEvent,
  undoEvent,
] as const;

/** What can happen to a job. A reading keeps only what was measured: the board's state comes from the fold. */
export type EventBody = (typeof TYPES)[number] extends infer D
  ? D extends EventDefinition<infer B>
    ? B
    : never
  : never;
export type EventType = EventBody['kind'];
export type BodyOf<T extends EventType> = Extract<EventBody, { kind: T }>;

export const EVENT_TYPES = TYPES as unknown as readonly EventDefinition<EventBody>[];

const BY_TYPE = new Map<string, EventDefinition<EventBody>>(EVENT_TYPES.map((t) => [t.type, t]));

/** The definition of a type by its name as stored; none for a type that this program does not know. */
export const eventDefinition = (type: string): EventDefinition<EventBody> | undefined => BY_TYPE.get(type);

export const eventBodySchema: z.ZodType<EventBody> = z.discriminatedUnion(
  'kind',
  EVENT_TYPES.map((t) => t.schema) as unknown as [z.ZodObject<{ kind: z.ZodLiteral<string> }>],
) as unknown as z.ZodType<EventBody>;
