'use client';

import { Box, Flex, Grid, Text } from '@chakra-ui/react';
import type { AirSetting } from '@/core/drill';
import { NOMINAL_STATION } from '@/core/heat';
import { Named, PlainButton, SelectBox } from '@/ui';
import type { AirAct, AirState, AirTurn } from './air-flight';

const DIALS: readonly {
  readonly name: keyof AirSetting;
  readonly label: string;
  readonly unit: string;
  readonly step: number;
  readonly keys: string;
}[] = [
  { name: 'airSetC', label: 'Dial', unit: '°C', step: 10, keys: '↑ ↓' },
  { name: 'heightMm', label: 'Height', unit: 'mm', step: 2, keys: '→ ←' },
  { name: 'flowLpm', label: 'Flow', unit: 'l/min', step: 5, keys: '+ −' },
];

/** The dial, the hand's height and the flow, each with its two keys. */
export function AirDials({ state, onTurn }: { state: AirState; onTurn: (by: AirTurn) => void }) {
  const { setting, phase } = state;
  return (
    <Box aria-label="Air" role="group">
      {DIALS.map(({ name, label, unit, step, keys }) => (
        <Grid
          key={name}
          templateColumns="64px minmax(0, 1fr) auto"
          alignItems="center"
          gap="2"
          py="2"
          borderBottom="1px solid"
          borderColor="rule"
        >
          <Text fontSize="14px" color="quiet">
            {label}
            <Text as="span" display="block" fontFamily="mono" fontSize="13px">
              {keys}
            </Text>
          </Text>
          <Text fontFamily="mono" fontWeight="700" fontSize="26px" aria-label={`${label} ${setting[name]} ${unit}`}>
            {setting[name]}{' '}
            <Text as="span" fontSize="14px" fontWeight="400">
              {unit}
            </Text>
          </Text>
          <Flex gap="1">
            {[-step, step].map((by) => (
              <PlainButton
                key={by}
                type="button"
                disabled={phase === 'over'}
                aria-label={`${label} ${by > 0 ? 'up' : 'down'}`}
                onClick={() => onTurn({ [name]: by })}
              >
                {by > 0 ? '+' : '−'}
              </PlainButton>
            ))}
          </Flex>
        </Grid>
      ))}
    </Box>
  );
}

/** What is chosen before the air is on: nozzle, plate, covers. */
export function AirSetup({ state: { flight }, act }: { state: AirState; act: (act: AirAct) => void }) {
  return (
    <Box mt="3" display="grid" gap="2">
      <Named name="Nozzle">
        <SelectBox
          label="Nozzle"
          value={String(flight.nozzleMm)}
          options={NOMINAL_STATION.nozzlesMm.map((mm) => [String(mm), `${mm} mm`] as const)}
          onChange={(mm) => act({ do: 'nozzle', mm: Number(mm) })}
        />
      </Named>
      <Named name="Plate below">
        <SelectBox
          label="Plate below"
          value={String(flight.plateSetC ?? 0)}
          options={[
            ['0', 'none'],
            ['120', '120 °C'],
            ['150', '150 °C'],
            ['180', '180 °C'],
          ]}
          onChange={(setC) => act({ do: 'plate', setC: Number(setC) || null })}
        />
      </Named>
      <Text fontSize="14px">
        {flight.covers.length > 0 ? (
          <>
            Covered: <b>{flight.covers.join(', ')}</b>
          </>
        ) : (
          'Nothing covered: click a part on the board.'
        )}
      </Text>
    </Box>
  );
}
