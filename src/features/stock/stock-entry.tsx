'use client';

import { useRouter } from 'next/navigation';
import { applyCompletion, grammarForms } from '@/core/command-line';
import { problemText } from '@/core/result';
import { completeStockEntry, parseStockEntry, STOCK_GRAMMAR, type StockWorld } from '@/core/stock';
import { EntryBar, type Echo, type EntryCommand } from '@/ui';
import { enterStockLine, settleEntry } from './actions';
import { STOCK_VIEWS } from './view';

const VIEW_KEYS = { shelf: 'S', donors: 'D', plan: 'P' } as const;

/** The entry line of the stock: what moves where, with what it means before Enter keeps it. */
export function StockEntry({ world, version }: { world: StockWorld; version: number }) {
  const router = useRouter();

  function echo(text: string): Echo {
    const entry = parseStockEntry(world, text);
    return entry.ok
      ? { message: entry.value.echo, state: 'plain' }
      : { message: problemText(entry.problems), state: 'problem' };
  }

  const commands = STOCK_VIEWS.map(({ id, name, href }): EntryCommand => ({
    key: VIEW_KEYS[id],
    label: name.toLowerCase(),
    run: () => router.push(href),
  }));
  return (
    <EntryBar
      name="stock"
      placeholder="take l-12 for 31"
      echo={echo}
      complete={(text) => completeStockEntry(world, text)}
      applyCompletion={applyCompletion}
      submit={enterStockLine}
      settle={settleEntry}
      version={version}
      forms={grammarForms(STOCK_GRAMMAR)}
      commands={commands}
    />
  );
}
