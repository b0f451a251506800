'use client';

import { useState } from 'react';
import { Box, Text } from '@chakra-ui/react';
import { dayIn, isLocale, isTimeZone, moneyIn } from '@/core/units';
import { Headline, Named, SelectBox, TextInput, usePlace } from '@/ui';
import { keepPlace } from './actions';
import { KeepForm } from './keep-form';

/** An hour in which the day differs from zone to zone, and an amount: how they would be shown. */
const EXAMPLE_AT = '2026-11-24T23:30:00.000Z';
const EXAMPLE_AMOUNT = 1234.5;

/** Where the bench stands: which day it is there, and how days and money are written. */
export function PlacePart({ timeZones }: { timeZones: readonly string[] }) {
  const { place } = usePlace();
  const [typed, setTyped] = useState(place);
  const zones = [...new Set([place.timeZone, ...timeZones])].map((z) => [z, z] as const);
  const holds = isTimeZone(typed.timeZone) && isLocale(typed.locale) && /^([A-Z]{3})?$/.test(typed.currency);
  return (
    <>
      <Headline title="Days and money as they are here" aside="every page, print, PDF">
        What is stored is universal time; what is shown is the day where the bench stands.
      </Headline>
      <KeepForm action="Keep this" read={() => typed} keep={keepPlace}>
        <Box maxW="680px">
          <Named name="Time zone">
            <SelectBox
              label="Time zone"
              value={typed.timeZone}
              options={zones}
              onChange={(timeZone) => setTyped({ ...typed, timeZone })}
            />
          </Named>
          <Named name="Language of days and figures, such as de-DE; empty: 2026-11-24">
            <TextInput
              aria-label="Language"
              w="10em"
              value={typed.locale}
              onChange={(e) => setTyped({ ...typed, locale: e.target.value.trim() })}
            />
          </Named>
          <Named name="Currency, such as EUR; empty: figures alone">
            <TextInput
              aria-label="Currency"
              w="6em"
              value={typed.currency}
              onChange={(e) => setTyped({ ...typed, currency: e.target.value.trim().toUpperCase() })}
            />
          </Named>
          {holds && (
            <Text mt="3" fontFamily="mono" suppressHydrationWarning>
              {dayIn(typed, EXAMPLE_AT)}, {moneyIn(typed, EXAMPLE_AMOUNT)}
            </Text>
          )}
        </Box>
      </KeepForm>
    </>
  );
}
