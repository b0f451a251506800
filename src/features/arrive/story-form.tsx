'use client';

import type { ReactNode } from 'react';
import { Box, Flex, Grid, Text, chakra } from '@chakra-ui/react';
import { HISTORY_FLAGS } from '@/core/diagnose';
import { HISTORY_WORDS, type Story } from '@/core/job';

export type StoryDraft = Omit<Story, 'kind'>;

export const EMPTY_STORY: StoryDraft = {
  symptom: '',
  history: [],
  dataMatters: false,
  locked: false,
  consent: false,
  pack: 'sound',
};

const PACKS = [
  ['sound', 'sound'],
  ['swollen', 'swollen'],
  ['none', 'none'],
] as const;

const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** The owner's story: what is wrong, what happened, what matters. */
export function StoryForm({ draft, onChange }: { draft: StoryDraft; onChange: (draft: StoryDraft) => void }) {
  const set = (change: Partial<StoryDraft>): void => onChange({ ...draft, ...change });
  const toggle = (flag: StoryDraft['history'][number]): void =>
    set({ history: draft.history.includes(flag) ? draft.history.filter((f) => f !== flag) : [...draft.history, flag] });
  return (
    <Grid gap="5" maxW="680px">
      <Field label="Symptom, in the owner’s words">
        <chakra.textarea
          value={draft.symptom}
          rows={2}
          maxLength={400}
          w="100%"
          bg="ground"
          border="1px solid"
          borderColor="quiet"
          borderRadius="2px"
          px="3"
          py="2"
          fontSize="17px"
          onChange={(e) => set({ symptom: e.target.value })}
        />
      </Field>
      <Group legend="What happened to it">
        {HISTORY_FLAGS.map((flag) => (
          <Tick
            key={flag}
            label={sentence(HISTORY_WORDS[flag])}
            checked={draft.history.includes(flag)}
            onChange={() => toggle(flag)}
          />
        ))}
      </Group>
      <Group legend="What matters">
        <Tick
          label="The data is what matters"
          checked={draft.dataMatters}
          onChange={() => set({ dataMatters: !draft.dataMatters })}
        />
        <Tick label="The device is locked" checked={draft.locked} onChange={() => set({ locked: !draft.locked })} />
        <Tick
          label="The owner agreed to risky steps"
          checked={draft.consent}
          onChange={() => set({ consent: !draft.consent })}
        />
      </Group>
      <Group legend="The pack">
        {PACKS.map(([value, label]) => (
          <chakra.label key={value} display="flex" gap="2" alignItems="center" cursor="pointer">
            <input type="radio" name="pack" checked={draft.pack === value} onChange={() => set({ pack: value })} />
            {sentence(label)}
          </chakra.label>
        ))}
      </Group>
      <Field label="What the device is worth to its owner, in your money; left empty where nobody knows">
        <chakra.input
          value={draft.worth ?? ''}
          inputMode="numeric"
          w="8em"
          bg="ground"
          border="1px solid"
          borderColor="quiet"
          borderRadius="2px"
          px="3"
          py="1.5"
          fontFamily="mono"
          onChange={(e) => set({ worth: worthOf(e.target.value) })}
        />
      </Field>
    </Grid>
  );
}

/** The figure that is typed; anything else counts as not known. */
function worthOf(text: string): number | undefined {
  const digits = text.replace(/[^0-9]/g, '').slice(0, 6);
  return digits === '' ? undefined : Number(digits);
}

function Field({ label, children }: { label: string; children: ReactNode }) {
  return (
    <chakra.label display="block">
      <Text as="span" display="block" fontSize="13px" fontWeight="700" color="quiet" mb="1.5">
        {label}
      </Text>
      {children}
    </chakra.label>
  );
}

function Group({ legend, children }: { legend: string; children: ReactNode }) {
  return (
    <Box as="fieldset" borderTop="1px solid" borderColor="rule" pt="2.5">
      <Text as="legend" fontSize="13px" fontWeight="700" color="quiet" float="left" w="100%" mb="2">
        {legend}
      </Text>
      <Flex gap="5" rowGap="2" wrap="wrap" clear="both">
        {children}
      </Flex>
    </Box>
  );
}

function Tick({ label, checked, onChange }: { label: string; checked: boolean; onChange: () => void }) {
  return (
    <chakra.label display="flex" gap="2" alignItems="center" cursor="pointer">
      <input type="checkbox" checked={checked} onChange={onChange} />
      {label}
    </chakra.label>
  );
}
