'use client';

import { Box, Text, chakra } from '@chakra-ui/react';
import type { Board } from '@/core/board';
import { formatInHundred, formatMinutes } from '@/core/units';
import { OddsBar, SidebarPart, useEntryOffer } from '@/ui';
import { carryTask } from '@/workers/carry/task';
import { useComputed } from '@/workers/use-worker-task';

/** While a hand is at work nothing is computed, ms. */
const AFTER_MS = 400;

/**
 * How far the file carries, stage by stage, and the reading that would help most.
 * @param props.isAsking that reading is asked for beside already: no line of the editor is offered for it.
 */
export function CarryPart({ board, isAsking = false }: { board: Board; isAsking?: boolean }) {
  const carry = useComputed(carryTask, board, { afterMs: AFTER_MS }).last?.value;
  const { offerText } = useEntryOffer();
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
