'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import { settle, type Settled } from '@/application/once';
import * as stock from '@/application/stock/stock';
import { database } from '@/db/client';

/** Reads a typed line of the stock again on the server, keeps it, and answers when it is on disk. */
export async function enterStockLine(text: string, key: string): Promise<ActionResult> {
  const answer = await stock.enterStockLine(await database(), text, key);
  if (answer.saved) revalidatePath('/', 'layout');
  return answer;
}

/** Finds out what became of a line whose answer never came. */
export const settleEntry = async (key: string): Promise<Settled> => settle(await database(), key);
