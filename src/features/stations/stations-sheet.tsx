'use client';

import { useState, useTransition } from 'react';
import { Flex, Grid, Link, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { NOMINAL_STATION, type Station } from '@/core/heat';
import { AnswerNote, ColumnHeads, Headline, Named, PageLink, PlainButton, TextInput, usePlace, LIST_WIDTH } from '@/ui';
import { keepStation } from './actions';
import type { KnownStation } from './queries';

const COLUMNS = 'minmax(0, 1.6fr) 110px 110px 90px 150px 150px minmax(0, 1fr)';

/** The hot-air stations of this bench: what each can do, and how well it is known. */
export function StationsSheet({ stations }: { stations: readonly KnownStation[] }) {
  const { day } = usePlace();
  return (
    <>
      <Headline title={`${stations.length} stations`} aside="library">
        A plan is computed for one station. What its air really does comes from a calibration, not from its dial.
      </Headline>
      <ColumnHeads
        columns={COLUMNS}
        names={['Station', 'Outlet ε', 'Film m', 'Doubt', 'Dial, °C', 'Flow, l/min', 'Calibrated']}
        mt="4"
      />
      {stations.map(({ station: s, history }) => (
        <Link key={s.id} asChild display="block" color="ink" _hover={{ textDecoration: 'none', bg: 'ground' }}>
          <PageLink href={`/library/stations/${s.id}`}>
            <Grid
              templateColumns={COLUMNS}
              minW={LIST_WIDTH}
              columnGap="4"
              alignItems="baseline"
              py="2.5"
              borderBottom="1px solid"
              borderColor="rule"
              fontFamily="mono"
            >
              <Text as="span" fontFamily="body" fontWeight="700">
                {s.name}
              </Text>
              <span>{s.outletEfficiency.toFixed(2)}</span>
              <span>{s.multiplier.toFixed(2)}</span>
              <span>{Math.round(100 * s.doubt)} %</span>
              <span>{s.setC.join(' to ')}</span>
              <span>{s.flowLpm.join(' to ')}</span>
              <Text as="span" color={history.length > 0 ? 'ink' : 'amberText'}>
                {history.length > 0 ? day(history[history.length - 1].at) : 'never here'}
              </Text>
            </Grid>
          </PageLink>
        </Link>
      ))}
      <NewStation taken={stations.map((s) => s.station.id)} />
    </>
  );
}

const range = (text: string): number[] =>
  text
    .split(/[^\d.]+/)
    .filter(Boolean)
    .map(Number);

/** A station that is not known yet starts as the nominal one, with its doubt. */
function NewStation({ taken }: { taken: readonly string[] }) {
  const [name, setName] = useState('');
  const [nozzles, setNozzles] = useState('4 6 8 10');
  const [dial, setDial] = useState('100 480');
  const [flow, setFlow] = useState('10 60');
  const [plate, setPlate] = useState('');
  const [iron, setIron] = useState('');
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, start] = useTransition();
  const id = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  const add = (): void =>
    start(async () => {
      if (taken.includes(id)) return setAnswer({ saved: false, message: `Expected a new name; "${name}" is taken.` });
      const station: Record<keyof Station, unknown> = {
        ...NOMINAL_STATION,
        id,
        name,
        nozzlesMm: range(nozzles),
        setC: range(dial),
        flowLpm: range(flow),
        irons:
          iron.trim() === '' ? [] : [{ name: 'Iron', setC: range(iron).slice(0, 2), tipsMm: range(iron).slice(2) }],
        plate: plate.trim() === '' ? null : { maxSetC: Number(plate), capC: Number(plate), lagS: 60 },
      };
      setAnswer(await keepStation(station));
    });
  const field = (label: string, value: string, set: (v: string) => void, w: string) => (
    <Named name={label}>
      <TextInput w={w} value={value} onChange={(e) => set(e.target.value)} />
    </Named>
  );
  return (
    <Flex as="section" direction="column" gap="2" mt="6" aria-label="A new station">
      <Text fontWeight="700">A new station</Text>
      <Flex gap="3" wrap="wrap" align="flex-end">
        {field('Name', name, setName, '15em')}
        {field('Nozzles, mm', nozzles, setNozzles, '9em')}
        {field('Dial from to, °C', dial, setDial, '8em')}
        {field('Flow from to, l/min', flow, setFlow, '8em')}
        {field('Plate up to, °C', plate, setPlate, '7em')}
        {field('Iron from to, °C, then tips, mm', iron, setIron, '13em')}
        <PlainButton type="button" disabled={busy || id === ''} onClick={add}>
          Add the station
        </PlainButton>
      </Flex>
      <AnswerNote answer={answer} />
    </Flex>
  );
}
