'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Grid, Link, Text } from '@chakra-ui/react';
import type { Part } from '@/core/board';
import { flatnessOf, judgeSeat, type JobView, type KeepEvent } from '@/core/job';
import { planSite, selfCentring } from '@/core/joints';
import { LandsDrawing } from '@/drawings/lands-drawing';
import { BigFigure, Headline, MainButton, Named, PageLink, ProblemNote, TextInput } from '@/ui';

const CORNERS = ['Top left', 'Top right', 'Bottom left', 'Bottom right'] as const;

/** Which way round, how far off it may lie, and whether it sits flat. */
export function PlaceWork({ job, part, onKeep }: { job: JobView; part: Part; onKeep: KeepEvent }) {
  const kept = job.state.flatness[part.ref];
  const [texts, setTexts] = useState<readonly string[]>(
    () => kept?.readings.map((r) => String(Math.round(1000 * r.heightMm))) ?? ['', '', '', ''],
  );
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const { board } = job;
  const site = planSite(board, part, board.alloy);
  const { lands } = board.packages[part.package];
  const padMm =
    'padMm' in lands ? (Array.isArray(lands.padMm) ? Math.min(...lands.padMm) : lands.padMm) : site.pitchMm / 2;
  const straight = selfCentring(padMm, site.pitchMm);
  const heights = texts.map((t) => (t.trim() === '' ? NaN : Number(t.trim().replace(',', '.'))));
  const wrong = texts.find((t, i) => t.trim() !== '' && !(heights[i] >= 0 && heights[i] <= 3000));
  const entry = heights.every(Number.isFinite) && wrong === undefined ? flatnessOf(board, part, heights) : undefined;
  const flat = entry && judgeSeat(board, entry);
  const keep = (): void =>
    start(async () => {
      const answer = await onKeep(job.number, entry!, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
    });
  return (
    <>
      <Headline
        title={flat ? flat.summary : `Pin 1 of ${part.ref} at the mark, then tack`}
        aside={flat ? (flat.holds ? 'flat' : 'not flat') : `${part.ref} ${part.what}`}
      >
        Compare with the photograph before the air comes. Warm until it holds, pull the air away, come back evenly,
        watch it settle, nudge once, hold a flat part down once, let it freeze untouched.{' '}
        <Link asChild color="copperText">
          <PageLink href={`/jobs/${job.number}/run`}>Run the placing</PageLink>
        </Link>
      </Headline>
      <Grid templateColumns={{ base: '1fr', md: 'minmax(0, 1fr) 300px' }} gap="6">
        <LandsDrawing board={board} part={part} />
        <Box>
          <BigFigure name="off its place, and still pulled straight" value={`${straight.offsetMm.toFixed(2)} mm`} />
          <Text fontSize="14px" color="quiet" mb="4">
            {Math.round(100 * straight.shareOfPitch)} % of the pitch of {site.pitchMm} mm; common practice, half a pad.
          </Text>
          <Text as="h2" fontWeight="700" mb="1">
            Heights of the corners, µm
          </Text>
          <Grid templateColumns="minmax(0, 1fr) minmax(0, 1fr)" gap="2" mb="2">
            {CORNERS.map((corner, i) => (
              <Named key={corner} name={corner}>
                <TextInput
                  w="100%"
                  minW="0"
                  inputMode="decimal"
                  value={texts[i]}
                  onChange={(e) => setTexts(texts.with(i, e.target.value))}
                />
              </Named>
            ))}
          </Grid>
          <Text fontSize="14px" color="quiet" mb="2">
            By feeler, or by the microscope’s focus on each corner against the board beside it. Or type “flat{' '}
            {part.ref.toLowerCase()} 52 55 50 54”.
          </Text>
          {wrong !== undefined && <ProblemNote text={`Expected a height from 0 to 3000 µm; got "${wrong}".`} />}
          {problem && <ProblemNote text={problem} />}
          <Flex gap="4" align="center">
            <MainButton type="button" disabled={busy || !flat} onClick={keep}>
              Keep the heights
            </MainButton>
            {flat && (
              <Text color={flat.holds ? 'leaf' : 'rust'} fontWeight="700">
                {flat.holds ? 'holds' : 'does not hold'}
              </Text>
            )}
          </Flex>
        </Box>
      </Grid>
    </>
  );
}
