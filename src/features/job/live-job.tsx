'use client';

import { useEffect, useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import { Text } from '@chakra-ui/react';
import { useSignedIn } from '@/ui';

/** A page that is only passed by asks for nothing, ms. */
const LISTEN_AFTER_MS = 2000;

interface Heard {
  readonly seq?: number;
  readonly actor?: string;
  readonly bench?: string;
}

/**
 * Brings the page up to date when another bench enters something to its job. Where nobody signs in there is one bench, and
 * nothing is listened to; nor while the page is out of sight.
 * @param version number of the newest event that the page shows.
 */
export function LiveJob({ number, version }: { number: number; version: number }) {
  const person = useSignedIn();
  const router = useRouter();
  const [heard, setHeard] = useState<Heard>();
  const shown = useRef(version);
  useEffect(() => {
    shown.current = version;
  }, [version]);
  const isShared = person !== undefined;
  useEffect(() => {
    if (!isShared) return;
    let source: EventSource | undefined;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const hear = ({ data }: MessageEvent<string>): void => {
      const news = JSON.parse(data) as Heard;
      if (news.seq === undefined || news.seq <= shown.current) return;
      setHeard(news);
      router.refresh();
    };
    const follow = (): void => {
      clearTimeout(timer);
      source?.close();
      if (document.visibilityState === 'hidden') return;
      timer = setTimeout(() => {
        source = new EventSource(`/jobs/${number}/live`);
        source.addEventListener('entered', hear);
        source.addEventListener('at', hear);
      }, LISTEN_AFTER_MS);
    };
    follow();
    document.addEventListener('visibilitychange', follow);
    return () => {
      document.removeEventListener('visibilitychange', follow);
      clearTimeout(timer);
      source?.close();
    };
  }, [number, isShared, router]);
  const isOther = heard?.actor !== undefined && (heard.actor !== person?.name || heard.bench !== person.bench);
  if (!isOther) return null;
  return (
    <Text role="status" fontSize="14px" color="leaf" mb="2">
      {`Entered by ${heard.actor}${heard.bench ? `, ${heard.bench}` : ''}: the page shows it.`}
    </Text>
  );
}
