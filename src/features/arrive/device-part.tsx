'use client';

import { useState, useTransition } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import type { DeviceMarks, JobView } from '@/core/job';
import { AnswerNote, Named, PageLink, PlainButton, SidebarPart, TextInput } from '@/ui';
import type { ActionResult } from '@/application/action-result';
import { keepDevice } from './actions';

const FIELDS = [
  ['serial', 'Serial number'],
  ['ticket', 'Shop’s ticket'],
  ['owner', 'Owner’s code'],
] as const satisfies readonly (readonly [keyof DeviceMarks, string])[];

/** Which device it is, and the label for its bag. */
export function DevicePart({ job }: { readonly job: JobView }) {
  const { device } = job.state;
  const kept: DeviceMarks = { serial: device?.serial ?? '', ticket: device?.ticket ?? '', owner: device?.owner ?? '' };
  const [said, setSaid] = useState(kept);
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const changed = FIELDS.some(([name]) => said[name].trim() !== kept[name]);
  const keep = (): void => start(async () => setAnswer(await keepDevice(job.number, said, crypto.randomUUID())));
  return (
    <SidebarPart title="The device">
      {FIELDS.map(([name, label]) => (
        <Named key={name} name={label}>
          <TextInput maxLength={60} value={said[name]} onChange={(e) => setSaid({ ...said, [name]: e.target.value })} />
        </Named>
      ))}
      <Text fontSize="13px" color="quiet">
        A code for the owner, no name: papers that leave the shop carry it.
      </Text>
      <Flex gap="3" align="baseline" mt="2">
        <PlainButton type="button" disabled={busy || !changed} onClick={keep}>
          Keep
        </PlainButton>
        <PageLink href={`/jobs/${job.number}/label`} style={{ textDecoration: 'underline' }}>
          label for the bag
        </PageLink>
      </Flex>
      {answer && <AnswerNote answer={answer} />}
    </SidebarPart>
  );
}
