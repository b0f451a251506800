'use client';

import { useEffect, useState } from 'react';
import { Box, Text, chakra } from '@chakra-ui/react';
import type { Board } from '@/core/board';
import type { Carry } from '@/core/sketch';
import { formatInHundred, formatMinutes } from '@/core/units';
import { OddsBar, SidebarPart, useEntryOffer } from '@/ui';
import { carryInWorker } from '@/workers/carry/client';

/** While a hand is at work nothing is computed, ms. */
const AFTER_MS = 400;

/**
 * How far the file carries, stage by stage, and the reading that would help most.
 * @param props.isAsking that reading is asked for beside already: no line of the editor is offered for it.
 */
export function CarryPart({ board, isAsking = false }: { board: Board; isAsking?: boolean }) {
  const [carry, setCarry] = useState<Carry>();
  const { offerText } = useEntryOffer();
  useEffect(() => {
    let cancel = (): void => {};
    const timer = setTimeout(() => {
      const run = carryInWorker(board);
      cancel = run.cancel;
      void run.answer.then((reply) => reply.kind === 'carry' && setCarry(reply.carry));
    }, AFTER_MS);
    return () => {
      clearTimeout(timer);
      cancel();
    };
  }, [board]);
  if (!carry)
    return (
      <SidebarPart title="How far this carries">
        <Text fontSize="14px" color="quiet">
          Weighing what is known …
        </Text>
      </SidebarPart>
    );
  return (
    <>
      <SidebarPart title="How far this carries">
        {carry.stages.map(({ stage, title, share, summary }) => (
          <Box key={stage}>
            <OddsBar name={title} share={share} figure={formatInHundred(share)} colour="copper" />
            <Text fontSize="13px" color="quiet" lineHeight="1.3">
              {summary}
            </Text>
          </Box>
        ))}
      </SidebarPart>
      {!isAsking && carry.worth.length > 0 && (
        <SidebarPart title="Worth reading on a good board">
          {carry.worth.map(({ label, line, savesMinutes }) => (
            <chakra.button
              key={line}
              type="button"
              display="block"
              textAlign="left"
              py="1"
              cursor="pointer"
              fontSize="14px"
              onClick={() => offerText(line)}
            >
              <Text as="span" color="copperText" textDecoration="underline">
                {label}
              </Text>
              <Text as="span" color="quiet">
                {' '}
                saves {formatMinutes(savesMinutes)} on a job, on average
              </Text>
            </chakra.button>
          ))}
        </SidebarPart>
      )}
    </>
  );
}
