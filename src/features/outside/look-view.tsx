'use client';

import { useState, useTransition } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { Port } from '@/core/board';
import { LOOK_FINDINGS, LOOK_FINDING_LABELS, type LookFinding } from '@/core/diagnose';
import { LOOK_ADVICE, portGate, type JobView, type KeepEvent } from '@/core/job';
import { MainButton, ProblemNote } from '@/ui';

interface LookViewProps {
  readonly job: JobView;
  readonly port: Port;
  readonly onKeep: KeepEvent;
}

/** The gate before any power: what to inspect, and what to do instead of powering where something is found. */
export function LookView({ job, port, onKeep }: LookViewProps) {
  const gate = portGate(job.state, port.id);
  const known = gate.state === 'doubtful' ? gate.seen : [];
  const [seen, setSeen] = useState<readonly LookFinding[]>(known);
  const [problem, setProblem] = useState<string>();
  const [busy, start] = useTransition();
  const toggle = (finding: LookFinding): void =>
    setSeen(seen.includes(finding) ? seen.filter((s) => s !== finding) : [...seen, finding]);
  const keep = (): void =>
    start(async () => {
      const value = seen.length > 0 ? ({ kind: 'fail', seen: [...seen] } as const) : ({ kind: 'pass' } as const);
      const measurement = { kind: 'visualInspection', ref: port.id } as const;
      const answer = await onKeep(job.number, { kind: 'reading', measurement, value }, crypto.randomUUID());
      setProblem(answer.saved ? undefined : answer.message);
    });
  return (
    <Box maxW="720px">
      {LOOK_FINDINGS.map((finding) => (
        <chakra.label
          key={finding}
          display="flex"
          gap="3"
          py="2"
          borderBottom="1px solid"
          borderColor="rule"
          alignItems="baseline"
          cursor="pointer"
        >
          <chakra.input
            type="checkbox"
            checked={seen.includes(finding)}
            onChange={() => toggle(finding)}
            w="18px"
            h="18px"
            accentColor="var(--u-colors-rust)"
            alignSelf="center"
          />
          <Text as="span" fontWeight="600" w="230px" flexShrink="0" color={seen.includes(finding) ? 'rust' : 'ink'}>
            {capital(LOOK_FINDING_LABELS[finding])}
          </Text>
          <Text as="span" fontSize="14px" color={seen.includes(finding) ? 'ink' : 'quiet'}>
            {LOOK_ADVICE[finding]}
          </Text>
        </chakra.label>
      ))}
      <Flex gap="4" mt="4" align="baseline">
        <MainButton type="button" onClick={keep} disabled={busy}>
          {seen.length === 0 ? `${port.id} is sound: power may come` : `${port.id} is doubtful: no power`}
        </MainButton>
        <Text color={gate.state === 'doubtful' ? 'rust' : gate.state === 'sound' ? 'leaf' : 'quiet'}>
          {gate.state === 'unlooked'
            ? 'Not looked at yet.'
            : gate.state === 'sound'
              ? 'Looked at: sound.'
              : `Doubtful: ${gate.message}.`}
        </Text>
      </Flex>
      {problem && <ProblemNote text={problem} />}
    </Box>
  );
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
