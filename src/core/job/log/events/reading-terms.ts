import { measurementTerm } from '../../../diagnose';
import type { OldData } from '../../../stored';

/** Named answers were kinds of values of their own: `{ kind: 'shape', shape }` and `{ kind: 'talk', stop }`. */
function choiceValue(value: OldData): OldData {
  if (value.kind === 'shape') return { kind: 'choice', choice: value.shape };
  return value.kind === 'talk' ? { kind: 'choice', choice: value.stop } : value;
}

/** Version 1 to 2 of a reading: kinds have the field's terms, named answers are one kind of value. */
export function readingWithFieldTerms(data: OldData): OldData {
  const { measurement, value } = data as { measurement?: OldData; value?: OldData };
  if (typeof measurement?.kind !== 'string' || typeof value !== 'object') return data;
  return {
    ...data,
    measurement: { ...measurement, kind: measurementTerm(measurement.kind) },
    value: choiceValue(value),
  };
}
