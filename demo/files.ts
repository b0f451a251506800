import { readFileSync } from 'node:fs';
import path from 'node:path';
import { parseBoardText, type Board } from '../src/core/board';
import { stationSchema, type Station } from '../src/core/heat';
import { parseImageFamily, type ImageFamily } from '../src/core/image';
import {
  parsePartType,
  partFamilySchema,
  reportSchema,
  type PartFamily,
  type PartType,
  type Report,
} from '../src/core/parts';
import { parseReferencesCsv, type ReferenceReading } from '../src/core/reference';
import { problemText } from '../src/core/result';
import { stockBodySchema, type StockEvent } from '../src/core/stock';

export const DEMO_BOARDS = ['heronlog-4-c', 'marshdesk-2-b'] as const;
export const DEMO_FAMILIES = ['heron-pd', 'marsh-pd3'] as const;

const read = (file: string): string => readFileSync(path.resolve('demo', file), 'utf8');

/** A board of the demo world, straight from its file. */
export function demoBoard(id: (typeof DEMO_BOARDS)[number]): Board {
  const parsed = parseBoardText(read(`boards/${id}.json`));
  if (!parsed.ok) throw new Error(problemText(parsed.problems));
  return parsed.value;
}

export function demoFamily(id: string): ImageFamily {
  const parsed = parseImageFamily(JSON.parse(read(`families/${id}.json`)));
  if (!parsed.ok) throw new Error(problemText(parsed.problems));
  return parsed.value;
}

/** Part types of the demo world; one that does not hold against the format is an error of the demo. */
export const demoPartTypes = (): PartType[] =>
  (JSON.parse(read('parts/part-types.json')) as unknown[]).map((input) => {
    const parsed = parsePartType(input);
    if (!parsed.ok) throw new Error(problemText(parsed.problems));
    return parsed.value;
  });

export const demoPartFamilies = (): PartFamily[] =>
  partFamilySchema.array().parse(JSON.parse(read('parts/families.json')));

export const demoReports = (): Report[] => reportSchema.array().parse(JSON.parse(read('parts/reports.json')));

/** What happened to the demo bench's stock, oldest first. */
export const demoStock = (): StockEvent[] =>
  (JSON.parse(read('parts/stock.json')) as StockEvent[]).map((event, i) => ({
    ...event,
    seq: i + 1,
    body: stockBodySchema.parse(event.body),
  }));

export const demoStations = (): Station[] => stationSchema.array().parse(JSON.parse(read('stations/stations.json')));

export function demoReferences(id: string): ReferenceReading[] {
  const parsed = parseReferencesCsv(read(`references/${id}.csv`));
  if (!parsed.ok) throw new Error(problemText(parsed.problems));
  return parsed.value;
}

export const demoDump = (file: string): Uint8Array => new Uint8Array(readFileSync(path.resolve('demo/images', file)));
