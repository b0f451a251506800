'use client';

import { useState, useTransition } from 'react';
import { Box, Text, chakra } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { MEMORY_SCHOOLS, RULES, SCHOOL_WORDS, isChangeable, type PartFamily, type RuleId } from '@/core/parts';
import { SelectBox } from '@/ui';
import { keepFamily } from './actions';

const CHANGEABLE = (Object.keys(RULES) as RuleId[]).filter((id) => isChangeable(RULES[id]));

/** The school for the memory, and rules that this bench judges otherwise for the family. */
export function FamilyForm({ family }: { family: PartFamily }) {
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const keep = (change: Partial<PartFamily>): void => start(async () => setAnswer(await keepFamily(family.id, change)));
  return (
    <>
      <chakra.label display="block" mb="2">
        The memory moves or is rewritten with the controller{' '}
        <SelectBox
          value={family.memory ?? ''}
          disabled={busy}
          options={[
            ['', 'default: only when its checks fail'],
            ...MEMORY_SCHOOLS.map((s) => [s, SCHOOL_WORDS[s]] as const),
          ]}
          onChange={(memory) => keep({ memory: (memory || undefined) as PartFamily['memory'] })}
        />
      </chakra.label>
      <details>
        <chakra.summary cursor="pointer" color="copperText">
          Rules judged otherwise here: {Object.keys(family.rules).length}
        </chakra.summary>
        {CHANGEABLE.map((id) => (
          <chakra.label key={id} display="flex" justifyContent="space-between" gap="2" py="0.5">
            <span title={RULES[id].reason}>{id}</span>
            <SelectBox
              value={family.rules[id] ?? ''}
              disabled={busy}
              options={[
                ['', RULES[id].outcome],
                ...(['fits', 'untried', 'blocks'] as const)
                  .filter((o) => o !== RULES[id].outcome)
                  .map((o) => [o, o] as const),
              ]}
              onChange={(outcome) => keep({ rules: withRule(family.rules, id, outcome) })}
            />
          </chakra.label>
        ))}
      </details>
      <Box minH="1.5em">
        {answer && (
          <Text role="status" color={answer.saved ? 'leaf' : 'rust'}>
            {answer.message}
          </Text>
        )}
      </Box>
    </>
  );
}

function withRule(rules: PartFamily['rules'], id: string, outcome: string): PartFamily['rules'] {
  const others = Object.fromEntries(Object.entries(rules).filter(([name]) => name !== id));
  return outcome ? { ...others, [id]: outcome as PartFamily['rules'][string] } : others;
}
