'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { EyesDrill } from '@/core/drill';
import { mapPoint, sitesOf } from '@/core/site';
import { AnswerNote, Headline, Key, MainButton, ProblemNote, face, tone } from '@/ui';
import { pictureTask, type ColouredPicture } from '@/workers/exercise/task';
import { useComputed } from '@/workers/use-worker-task';
import { finishExercise } from './actions';
import type { ExerciseView } from './queries';

/** Pictures of drawn truth, a few seconds each: every site that may not go onto a board is marked by a click. */
export function EyesWork({ exercise, drill }: { exercise: ExerciseView; drill: EyesDrill }) {
  const [at, setAt] = useState<number>();
  const [marked, setMarked] = useState<readonly (readonly number[])[]>([]);
  const [answer, setAnswer] = useState<{ saved: boolean; message: string }>();
  const { picture, problem } = usePicture(drill, at);
  const now = marked[at ?? 0] ?? [];
  const next = (): void => {
    const all = Array.from({ length: drill.pictures }, (_, i) => marked[i] ?? []);
    if (at === undefined) setAt(0);
    else if (at + 1 < drill.pictures) setAt(at + 1);
    else if (!answer) void finishExercise(exercise.id, { marked: all }, crypto.randomUUID()).then(setAnswer);
  };
  const leftS = useCountdown(picture ? at : undefined, drill.secondsEach, next);
  const toggle = (site: number): void => {
    const list = now.includes(site) ? now.filter((s) => s !== site) : [...now, site];
    setMarked(Array.from({ length: drill.pictures }, (_, i) => (i === at ? list : (marked[i] ?? []))));
  };
  useNextKey(next);
  if (at === undefined)
    return (
      <>
        <Headline title={`${drill.pictures} pictures, ${drill.secondsEach} seconds each`} aside={drill.name}>
          Click every ball that may not go onto a board: missing, bridged, too small, too large, or beside its pad.
        </Headline>
        <MainButton type="button" onClick={next}>
          Show the first <Key onCopper>Enter</Key>
        </MainButton>
      </>
    );
  return (
    <>
      <Headline
        title={`Picture ${at + 1} of ${drill.pictures}`}
        aside={
          <Text as="span" fontFamily="mono" fontWeight="700" fontSize="26px" color={leftS <= 5 ? 'rust' : 'ink'}>
            {Math.ceil(leftS)} s
          </Text>
        }
      >
        {now.length === 0 ? 'Nothing marked.' : `${now.length} marked.`}
      </Headline>
      {picture && <Marking picture={picture} marked={now} onPick={toggle} />}
      {problem && <ProblemNote text={problem} />}
      <Flex mt="3" gap="3">
        <MainButton type="button" onClick={next} disabled={!picture}>
          {at + 1 < drill.pictures ? 'Next picture' : 'That was the last'} <Key onCopper>Enter</Key>
        </MainButton>
      </Flex>
      {answer && !answer.saved && <AnswerNote answer={answer} />}
    </>
  );
}

/** The picture that is shown now, drawn in a worker. */
function usePicture(drill: EyesDrill, at: number | undefined): { picture?: ColouredPicture; problem?: string } {
  const request = useMemo(() => (at === undefined ? undefined : { drill, picture: at }), [drill, at]);
  const { status } = useComputed(pictureTask, request);
  if (status.kind === 'problem') return { problem: status.message };
  return { picture: status.kind === 'done' ? status.value : undefined };
}

const TICK_MS = 200;

/** Seconds left of what is shown; when none is left it goes on. */
function useCountdown(of: number | undefined, seconds: number, onEnd: () => void): number {
  const [left, setLeft] = useState({ of, s: seconds });
  const end = useRef(onEnd);
  useEffect(() => {
    end.current = onEnd;
  });
  useEffect(() => {
    if (of === undefined) return;
    const began = performance.now();
    const timer = setInterval(() => {
      const s = seconds - (performance.now() - began) / 1000;
      setLeft({ of, s: Math.max(0, s) });
      if (s > 0) return;
      clearInterval(timer);
      end.current();
    }, TICK_MS);
    return () => clearInterval(timer);
  }, [of, seconds]);
  return left.of === of ? left.s : seconds;
}

function useNextKey(next: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key !== 'Enter' || event.target instanceof HTMLButtonElement) return;
      event.preventDefault();
      next();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
}

function Marking({
  picture: { width, height, rgba, toPicture, pattern },
  marked,
  onPick,
}: {
  picture: ColouredPicture;
  marked: readonly number[];
  onPick: (site: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    canvas.current?.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, [rgba, width, height]);
  const sites = sitesOf(pattern).map((s) => mapPoint(toPicture, s));
  const reach = Math.min(...sites.slice(1).map((s) => Math.hypot(s.x - sites[0].x, s.y - sites[0].y))) / 2;
  return (
    <Box bg="mat" p="2" style={{ width: `min(100%, ${(62 * width) / height}vh)` }}>
      <Box position="relative" style={{ aspectRatio: `${width} / ${height}` }}>
        <canvas ref={canvas} width={width} height={height} style={{ width: '100%', display: 'block' }} />
        <svg
          viewBox={`0 0 ${width} ${height}`}
          style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', fontFamily: face.figures }}
        >
          {sites.map(({ x, y }, i) => (
            <circle
              key={i}
              role="checkbox"
              aria-checked={marked.includes(i)}
              aria-label={`Ball ${i + 1}`}
              tabIndex={0}
              cx={x}
              cy={y}
              r={0.94 * reach}
              fill="transparent"
              stroke={marked.includes(i) ? tone.matRust : 'transparent'}
              strokeWidth={3}
              style={{ cursor: 'pointer' }}
              onClick={() => onPick(i)}
              onKeyDown={(e) => {
                if (e.key !== ' ') return;
                e.preventDefault();
                onPick(i);
              }}
            />
          ))}
        </svg>
      </Box>
    </Box>
  );
}
