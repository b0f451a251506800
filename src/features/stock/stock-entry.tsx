'use client';

import { useMemo } from 'react';
import { useRouter } from 'next/navigation';
import { problemText } from '@/core/result';
import { STOCK_FORMS, parseStockEntry, type StockWorld } from '@/core/stock';
import { EntryBar, type Echo, type EntryCommand } from '@/ui';
import { enterStockLine } from './actions';
import { STOCK_VIEWS } from './view';

const VIEW_KEYS = { shelf: 'S', donors: 'D', plan: 'P' } as const;

/** The entry line of the stock: what moves where, with what it means before Enter keeps it. */
export function StockEntry({ world, version }: { world: StockWorld; version: number }) {
  const router = useRouter();
  const names = useMemo(
    () => [...world.state.chips.keys(), ...world.state.lots.keys(), ...world.state.donors.keys()],
    [world],
  );

  function echo(text: string): Echo {
    const entry = parseStockEntry(world, text);
    return entry.ok
      ? { words: entry.value.echo, state: 'plain' }
      : { words: problemText(entry.problems), state: 'problem' };
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
      complete={(text) => completions(text, names)}
      applyCompletion={(_, completion) => `${completion} `}
      submit={(text) => enterStockLine(text, crypto.randomUUID())}
      version={version}
      commands={commands}
    />
  );
}

/** Forms and names that begin as the line does. */
function completions(text: string, names: readonly string[]): string[] {
  const typed = text.toLowerCase();
  if (typed.includes(' ')) return STOCK_FORMS.map(([form]) => form).filter((form) => form.startsWith(typed));
  const verbs = ['take', 'off', 'lot', 'donor', 'pull'];
  return [...verbs, ...names.map((n) => n.toLowerCase())].filter((n) => n.startsWith(typed) && n !== typed);
}
