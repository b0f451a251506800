import { z } from 'zod';
import { defineEvent } from './definition';

const markSchema = z.string().trim().max(60);

/** Which device it is: its serial number, the shop's own ticket, and a code for its owner, never a name. */
const schema = z.object({
  kind: z.literal('device'),
  serial: markSchema.describe('as it stands on the device'),
  ticket: markSchema.describe('of the shop’s own papers'),
  owner: markSchema.describe('a code that the shop can resolve; no name, no address'),
});
export type DeviceBody = z.infer<typeof schema>;
export type DeviceMarks = Omit<DeviceBody, 'kind'>;

export const deviceEvent = defineEvent<DeviceBody>({
  type: 'device',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { serial, ticket, owner }) =>
    `device ${[serial && `serial ${serial}`, ticket && `ticket ${ticket}`, owner && `owner ${owner}`].filter(Boolean).join(', ') || 'without marks'}`,
});
