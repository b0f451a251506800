'use client';

import { useEffect, useState, type ReactNode } from 'react';
import { useServerInsertedHTML } from 'next/navigation';
import { ChakraProvider } from '@chakra-ui/react';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { ThemeProvider } from 'next-themes';
import { system } from './theme';

/** Emotion's styles are inserted while the page streams; without this the first paint and React disagree. */
function EmotionRegistry({ nonce, children }: { nonce?: string; children: ReactNode }) {
  const [{ cache, flush }] = useState(() => {
    const made = createCache({ key: 'u', nonce });
    made.compat = true;
    const insert = made.insert;
    let inserted: string[] = [];
    made.insert = (...args) => {
      const [, serialized] = args;
      if (made.inserted[serialized.name] === undefined) inserted.push(serialized.name);
      return insert(...args);
    };
    const flushNames = (): string[] => {
      const names = inserted;
      inserted = [];
      return names;
    };
    return { cache: made, flush: flushNames };
  });
  useServerInsertedHTML(() => {
    const names = flush();
    if (names.length === 0) return null;
    const css = names
      .map((name) => cache.inserted[name])
      .filter((v) => typeof v === 'string')
      .join('');
    return (
      <style nonce={nonce} data-emotion={`${cache.key} ${names.join(' ')}`} dangerouslySetInnerHTML={{ __html: css }} />
    );
  });
  return <CacheProvider value={cache}>{children}</CacheProvider>;
}

/**
 * The page is sent asleep: a press on a button or a drawing before its script is awake would be lost without a word, so that
 * they take none until then. Links work, and what is typed ahead stays in its field.
 */
function useAwake(): void {
  useEffect(() => {
    delete document.body.dataset.asleep;
  }, []);
}

/** Everything the interface needs round it: styles, palette, paper or dim. */
export function UiProvider({ nonce, children }: { nonce?: string; children: ReactNode }) {
  useAwake();
  return (
    <EmotionRegistry nonce={nonce}>
      <ChakraProvider value={system}>
        <ThemeProvider
          attribute="class"
          defaultTheme="light"
          enableSystem={false}
          nonce={nonce}
          disableTransitionOnChange
        >
          {children}
        </ThemeProvider>
      </ChakraProvider>
    </EmotionRegistry>
  );
}
