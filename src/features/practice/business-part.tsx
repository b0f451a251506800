'use client';

import { useState } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { MESSAGE_FACTS, WEEK, messageFor, spansFromText, spansText, type Business, type MessageFact } from '@/core/day';
import { Headline, Named, TextInput } from '@/ui';
import { keepBusiness } from './actions';
import { KeepForm } from './keep-form';

/** How the message would read; the facts are those of nobody. */
const EXAMPLE: Readonly<Record<MessageFact, string>> = {
  device: 'Heronlog 4',
  cause: 'replace U4',
  chance: '84',
  price: '95',
  fee: '20',
};

interface Typed {
  readonly days: readonly number[];
  readonly hours: string;
  readonly fee: string;
  readonly flat: string;
  readonly noCureNoFee: boolean;
  readonly tax: string;
  readonly message: string;
}

const typedOf = ({ hours, diagnosisFee, flat, noCureNoFee, taxPercent, message }: Business): Typed => ({
  days: hours.days,
  hours: spansText(hours.spans),
  fee: String(diagnosisFee),
  flat: flat === null ? '' : String(flat),
  noCureNoFee,
  tax: String(taxPercent),
  message,
});

/** A figure as typed, with a decimal comma or point; NaN where it is none, which the check refuses. */
const figure = (text: string): number => (text.trim() === '' ? NaN : Number(text.trim().replace(',', '.')));

/** When the shop works, how it prices, and what an owner is told. */
export function BusinessPart({ business }: { business: Business }) {
  const [typed, setTyped] = useState(() => typedOf(business));
  const change = (more: Partial<Typed>): void => setTyped({ ...typed, ...more });
  return (
    <>
      <Headline title="When the shop works, and what it asks" aside="the day, promises, quotes">
        The day is planned into these hours. An hour’s price and parts are under Parts and money.
      </Headline>
      <KeepForm
        action="Keep this"
        read={() => typed}
        keep={async (now) => {
          const spans = spansFromText(now.hours);
          if (!spans.ok) return { saved: false, message: spans.problems[0].message };
          return keepBusiness({
            hours: { days: now.days, spans: spans.value },
            diagnosisFee: figure(now.fee),
            flat: now.flat.trim() === '' ? null : figure(now.flat),
            noCureNoFee: now.noCureNoFee,
            taxPercent: figure(now.tax),
            message: now.message,
          });
        }}
      >
        <Box maxW="720px" display="grid" gap="4">
          <Days days={typed.days} onChange={(days) => change({ days })} />
          <Named name="Hours, such as 9:00 to 13:00, 13:30 to 18:00">
            <TextInput
              aria-label="Hours"
              w="24em"
              value={typed.hours}
              onChange={(e) => change({ hours: e.target.value })}
            />
          </Named>
          <Flex gap="5" wrap="wrap" align="flex-end">
            <Figure name="Fee for looking" value={typed.fee} onChange={(fee) => change({ fee })} />
            <Figure
              name="One price for every cure; empty: by hour and parts"
              value={typed.flat}
              onChange={(flat) => change({ flat })}
            />
            <Figure name="Tax, %" value={typed.tax} onChange={(tax) => change({ tax })} />
          </Flex>
          <chakra.label display="flex" gap="2" alignItems="baseline" fontSize="15px">
            <input
              type="checkbox"
              checked={typed.noCureNoFee}
              onChange={(e) => change({ noCureNoFee: e.target.checked })}
            />
            No cure, no price: nothing but the fee for looking
          </chakra.label>
          <Message message={typed.message} onChange={(message) => change({ message })} />
        </Box>
      </KeepForm>
    </>
  );
}

function Days({ days, onChange }: { days: readonly number[]; onChange: (days: number[]) => void }) {
  return (
    <Flex as="fieldset" gap="4" wrap="wrap" border="0">
      <chakra.legend fontSize="13px" color="quiet" mb="1">
        Days
      </chakra.legend>
      {WEEK.map(([day, name]) => (
        <chakra.label key={day} display="flex" gap="1.5" alignItems="baseline" fontSize="15px">
          <input
            type="checkbox"
            checked={days.includes(day)}
            onChange={(e) => onChange(e.target.checked ? [...days, day] : days.filter((d) => d !== day))}
          />
          {name}
        </chakra.label>
      ))}
    </Flex>
  );
}

const Figure = ({ name, value, onChange }: { name: string; value: string; onChange: (text: string) => void }) => (
  <Named name={name}>
    <TextInput
      aria-label={name}
      inputMode="decimal"
      w="7em"
      fontFamily="mono"
      value={value}
      onChange={(e) => onChange(e.target.value)}
    />
  </Named>
);

function Message({ message, onChange }: { message: string; onChange: (text: string) => void }) {
  return (
    <Box>
      <Named name="What an owner is told">
        <chakra.textarea
          aria-label="What an owner is told"
          rows={4}
          maxLength={1000}
          w="100%"
          bg="ground"
          border="1px solid"
          borderColor="rule"
          px="2"
          py="1"
          fontSize="14px"
          color="ink"
          value={message}
          onChange={(e) => onChange(e.target.value)}
        />
      </Named>
      <Text fontSize="13px" color="quiet" mt="1">
        {Object.entries(MESSAGE_FACTS)
          .map(([name, what]) => `{${name}} ${what}`)
          .join(' · ')}
      </Text>
      <Text mt="3" pl="3" borderLeft="2px solid" borderColor="copper" fontSize="15px" whiteSpace="pre-wrap">
        {messageFor(message, EXAMPLE)}
      </Text>
    </Box>
  );
}
