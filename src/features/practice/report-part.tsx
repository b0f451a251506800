'use client';

import { useState, type ReactNode } from 'react';
import { Box, chakra } from '@chakra-ui/react';
import type { ReportWords } from '@/core/job';
import { Headline, Named, TextInput } from '@/ui';
import { keepReportWords } from './actions';
import { KeepForm } from './keep-form';

/** How the shop's reports read. */
export function ReportPart({ words }: { words: ReportWords }) {
  const [typed, setTyped] = useState(words);
  const change = (more: Partial<ReportWords>): void => setTyped({ ...typed, ...more });
  return (
    <>
      <Headline title="The report in the shop’s words" aside="print, PDF, JSON">
        {'{job}'} and {'{device}'} stand for the job’s number and the device. What was measured is printed as it was.
      </Headline>
      <KeepForm action="Keep these words" read={() => typed} keep={keepReportWords}>
        <Box maxW="680px">
          <Field name="Shop">
            <TextInput
              aria-label="Shop"
              w="100%"
              value={typed.shop}
              onChange={(e) => change({ shop: e.target.value })}
            />
          </Field>
          <Field name="Heading">
            <TextInput
              aria-label="Heading"
              w="100%"
              value={typed.heading}
              onChange={(e) => change({ heading: e.target.value })}
            />
          </Field>
          <Field name="Before a price">
            <TextInput
              aria-label="Before a price"
              w="8em"
              value={typed.money}
              onChange={(e) => change({ money: e.target.value })}
            />
          </Field>
          <Field name="At its end: warranty, thanks, what to look after">
            <chakra.textarea
              aria-label="At its end"
              rows={4}
              maxLength={600}
              w="100%"
              bg="ground"
              border="1px solid"
              borderColor="rule"
              px="2"
              py="1"
              fontSize="14px"
              color="ink"
              value={typed.closing}
              onChange={(e) => change({ closing: e.target.value })}
            />
          </Field>
        </Box>
      </KeepForm>
    </>
  );
}

const Field = ({ name, children }: { name: string; children: ReactNode }) => (
  <Box mb="3">
    <Named name={name}>{children}</Named>
  </Box>
);
