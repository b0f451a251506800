import { z } from 'zod';
import { ROLES, type Person } from './person';

/** Set by the proxy on what it lets through, after whatever came from outside under that name was taken away. */
export const PERSON_HEADER = 'x-unisolda-person';

const personSchema = z.object({
  name: z.string(),
  role: z.enum(ROLES),
  bench: z.string(),
  sessionId: z.string(),
});

export const personHeader = (person: Person): string => encodeURIComponent(JSON.stringify(person));

/** @throws where the header is not what the proxy writes. */
export const personOfHeader = (text: string): Person => personSchema.parse(JSON.parse(decodeURIComponent(text)));
