import 'server-only';
import Papa from 'papaparse';
import * as records from '@/application/records/records';
import { database } from '@/db/client';

export type { Learning, PointRecords, Records } from '@/application/records/records';

type Search = Readonly<Record<string, string | string[] | undefined>>;

const word = (value: string | string[] | undefined): string | undefined =>
  (Array.isArray(value) ? value[0] : value) || undefined;
const askedOf = (search: Search): records.RecordsAsked =>
  records.recordsAskedSchema.parse({
    by: word(search.by),
    boardId: word(search.board),
    from: word(search.from),
    before: word(search.before),
  });

export const loadRecords = async (search: Search) => records.loadRecords(await database(), askedOf(search));

export async function loadPoint(search: Search) {
  const near = Number(word(search.near)?.replace(',', '.'));
  return records.loadPoint(await database(), {
    boardId: word(search.board),
    point: word(search.point),
    near: word(search.near) === undefined || Number.isNaN(near) ? undefined : near,
  });
}

export const loadLearning = async () => records.loadLearning(await database());

/** The table asked for, as a file. */
export const loadCsv = async (search: Search): Promise<string> =>
  `${Papa.unparse((await records.recordsCsv(await database(), askedOf(search))) as unknown[][])}\r\n`;

/** One year by board, by cause and by month, for its sheet. */
export async function loadYear(year: number) {
  const db = await database();
  const of = (by: records.RecordsAsked['by']) =>
    records.loadRecords(db, { by, from: `${year}-01-01`, before: `${year + 1}-01-01` });
  const [boards, causes, months, people] = [
    await of('board'),
    await of('cause'),
    await of('month'),
    await of('person'),
  ];
  return { year, boards, causes, months, people };
}
export type YearOfRecords = Awaited<ReturnType<typeof loadYear>>;
