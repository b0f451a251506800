/** Databases of every schema that ever landed are brought up with their content equal; the way back is the copy beside them. */
import { cpSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createClient } from '@libsql/client';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { openDatabase } from './client';

interface Journal {
  readonly entries: readonly { readonly when: number }[];
}
const journal = JSON.parse(readFileSync('drizzle/meta/_journal.json', 'utf8')) as Journal;

let folder: string;
beforeEach(() => (folder = mkdtempSync(path.join(tmpdir(), 'unisolda-old-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A database as the program of that time left it: the first migrations, and rows that it could hold. */
async function oldDatabase(migrations: number): Promise<string> {
  const migrationsFolder = path.join(folder, 'drizzle');
  cpSync('drizzle', migrationsFolder, { recursive: true });
  writeFileSync(
    path.join(migrationsFolder, 'meta/_journal.json'),
    JSON.stringify({ ...journal, entries: journal.entries.slice(0, migrations) }),
  );
  const file = path.join(folder, 'shop.db');
  const client = createClient({ url: `file:${file}` });
  await migrate(drizzle(client), { migrationsFolder });
  for (const { name } of (
    await client.execute(
      "select name from sqlite_master where type = 'table' and name not like '\\_\\_%' escape '\\' and name not like 'sqlite%'",
    )
  ).rows) {
    const columns = (await client.execute(`pragma table_info("${String(name)}")`)).rows;
    // A key of one whole number counts itself up.
    const isAlone = columns.filter((c) => Number(c.pk) > 0).length === 1;
    const given = columns.filter((c) => !(isAlone && Number(c.pk) === 1 && /int/i.test(String(c.type))));
    const values = given.map((c) => (/int|real/i.test(String(c.type)) ? 1 : `${String(name)} ${String(c.name)}`));
    await client.execute('pragma foreign_keys=off');
    await client.execute({
      sql: `insert into "${String(name)}" (${given.map((c) => `"${String(c.name)}"`).join(', ')}) values (${given.map(() => '?').join(', ')})`,
      args: values,
    });
  }
  client.close();
  return file;
}

type Rows = Record<string, Record<string, unknown>[]>;
async function contentOf(file: string): Promise<Rows> {
  const client = createClient({ url: `file:${file}` });
  const tables = (
    await client.execute(
      "select name from sqlite_master where type = 'table' and name not like '\\_\\_%' escape '\\' and name not like 'sqlite%'",
    )
  ).rows;
  const content: Rows = {};
  for (const { name } of tables)
    content[String(name)] = (await client.execute(`select * from "${String(name)}"`)).rows.map((r) => ({ ...r }));
  client.close();
  return content;
}

const LATEST = journal.entries.length;

test.each(Array.from({ length: LATEST - 1 }, (_, i) => i + 1))(
  'a database of migration %i is brought up, its rows equal',
  async (migrations) => {
    const file = await oldDatabase(migrations);
    const before = await contentOf(file);
    const db = await openDatabase(`file:${file}`);
    const [{ known }] = await db.all<{ known: number }>(sql`select count(*) as known from __drizzle_migrations`);
    expect(known).toBe(LATEST);
    const after = await contentOf(file);
    for (const [table, rows] of Object.entries(before))
      for (const [i, row] of rows.entries())
        for (const [column, value] of Object.entries(row))
          if (after[table]?.[i] && column in after[table][i])
            expect([table, column, after[table][i][column]]).toEqual([table, column, value]);
    expect(Object.keys(before).filter((t) => !(t in after))).toEqual([]);
    const copy = readdirSync(folder).find((f) => f.includes('.before-'))!;
    expect(await contentOf(path.join(folder, copy))).toEqual(before);
  },
);
