import type { Result } from '../result';
import * as log from '../stored';
import { stockBodySchema, type StockBody } from './events';

/** The forms of the stock's log: all of them are at their first version. */
const TYPES = stockBodySchema.options.map((option) => option.shape.kind.value);
const FORM: log.StoredForm<StockBody> = { version: 1, schema: stockBodySchema, upcasters: [] };
const FORMS: log.StoredForms<StockBody> = {
  types: TYPES,
  formOf: (type) => ((TYPES as readonly string[]).includes(type) ? FORM : undefined),
};

/** A stock event as it is written now. */
export const stockToStored = (body: StockBody): log.StoredEvent => log.toStored(FORMS, body);

/** A stored stock event of any version; what cannot be read is a problem that says so. */
export const stockFromStored = (input: unknown): Result<StockBody> => log.fromStored(FORMS, input);

/** The same from text. */
export const stockFromText = (text: string): Result<StockBody> => log.fromStoredText(FORMS, text);
