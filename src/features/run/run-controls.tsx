'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { RUN_MARK_WORDS, type RunCard } from '@/core/run';
import { Key } from '@/ui';
import type { Pedal } from './use-pedal';
import type { Run } from './use-run';
import type { Voice } from './use-voice';

/** Whether a card waits for the hand's nudge. */
export const isNudge = ({ hot, goesOn, marks }: RunCard): boolean =>
  hot && !goesOn && (marks.includes('swims') || marks.includes('seated'));

const BigKey = chakra('button', {
  base: {
    display: 'inline-flex',
    alignItems: 'baseline',
    gap: '2',
    fontSize: '20px',
    px: '3',
    py: '2',
    border: '1px solid',
    borderColor: 'quiet',
    borderRadius: '2px',
    cursor: 'pointer',
    _disabled: { opacity: 0.45, cursor: 'not-allowed' },
  },
});

/** The keys of a run, each with what it does now. */
export function Controls({ run, running, voice, pedal }: { run: Run; running: boolean; voice: Voice; pedal: Pedal }) {
  const at = run.clock?.card ?? 0;
  const card = run.cards[at];
  const paused = running && run.state!.pausedAtMs !== null;
  const [mark] = running ? card.marks : [];
  const forward = !running ? 'begin' : card.gate ? 'yes, it is so' : at < run.cards.length - 1 ? 'next' : 'finish';
  return (
    <Flex gap="3" wrap="wrap" mt="6" align="center" as="nav" aria-label="Keys of the run">
      <BigKey
        type="button"
        bg="copperText"
        color="ground"
        borderColor="copperText"
        fontWeight="700"
        onClick={running ? run.next : run.begin}
      >
        {forward}
        <Box as="span" fontFamily="mono" fontWeight="400">
          {pedal.key}, space
        </Box>
      </BigKey>
      <BigKey type="button" disabled={!mark} onClick={() => mark && run.mark(mark)}>
        {mark ? `it ${mark === 'swims' ? 'swims' : `is ${RUN_MARK_WORDS[mark]}`}` : 'mark'} <Key>M</Key>
      </BigKey>
      {running && isNudge(card) && (
        <BigKey type="button" onClick={() => run.see('stuck')}>
          not swimming <Key>N</Key> or hold
        </BigKey>
      )}
      {running && card.hot && (
        <>
          <BigKey type="button" onClick={() => run.see('neighbourMoves')}>
            a neighbour moves <Key>V</Key>
          </BigKey>
          <BigKey type="button" onClick={() => run.see('browns')}>
            browns <Key>B</Key>
          </BigKey>
        </>
      )}
      <BigKey type="button" disabled={!running} onClick={run.pauseOrGoOn}>
        {paused ? 'go on' : 'pause'} <Key>P</Key>
      </BigKey>
      <BigKey type="button" disabled={!running || at === 0} onClick={run.back}>
        back <Key>⌫</Key>
      </BigKey>
      <BigKey type="button" disabled={!running} onClick={run.abort}>
        give up <Key>X</Key>
      </BigKey>
      <BigKey type="button" aria-pressed={voice.on} onClick={voice.toggle}>
        voice {voice.on ? 'on' : 'off'} <Key>S</Key>
      </BigKey>
      <BigKey type="button" ml="auto" border="0" onClick={pedal.learn}>
        {pedal.learning ? 'press the pedal' : `pedal: ${pedal.key}`}
      </BigKey>
      <Text fontSize="16px" color="quiet" w="6em" role="status">
        {run.waiting ? 'keeping…' : running ? 'kept' : ''}
      </Text>
    </Flex>
  );
}
