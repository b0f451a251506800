'use client';

import { useEffect, useRef, useState } from 'react';
import { Box, Flex, Text } from '@chakra-ui/react';
import { PROBE_PLACES_MM, wholeSeconds, type ProbePlace, type ThermoLog, type Trial } from '@/core/calibration';
import type { Station } from '@/core/heat';
import { thermoTable } from '@/core/import';
import { seededRandom } from '@/core/math';
import { SimulatedLogger, twinOf, type Blow, type LoggerSample } from '@/devices/station';
import { LogCurves } from '@/drawings/log-curves';
import { FilePick, Named, PlainButton, ReadingAsk, SelectBox, useFileReading } from '@/ui';

interface LoggerPartProps {
  readonly station: Station;
  readonly blow: Blow;
  /** Whether the simulated logger is offered. */
  readonly simulators: boolean;
  readonly onTrial: (trial: Trial) => void;
  readonly onProblem: (words: string) => void;
}

/** The simulated logger may run faster than a real one. */
const SPEED = 10;
const LOG_S = 60;

const PLACE_WORDS: Record<ProbePlace, string> = {
  slug: 'on the slug',
  near: `on the board, ${PROBE_PLACES_MM.near} mm out`,
  far: `on the board, ${PROBE_PLACES_MM.far} mm out`,
};
const PLACES = [
  ...(Object.keys(PLACE_WORDS) as ProbePlace[]).map((p) => [p, PLACE_WORDS[p]] as const),
  ['', 'leave out'] as const,
];

/** Thermocouples on the coupon: from a logger's file, or live from the simulated logger. */
export function LoggerPart({ station, blow, simulators, onTrial, onProblem }: LoggerPartProps) {
  const [file, setFile] = useState<ThermoLog>();
  const [places, setPlaces] = useState<readonly (ProbePlace | '')[]>([]);
  const [samples, setSamples] = useState<readonly LoggerSample[]>([]);
  const [running, setRunning] = useState(false);
  const logger = useRef<SimulatedLogger>(undefined);
  useEffect(() => () => logger.current?.stop(), []);

  const reading = useFileReading<ThermoLog>({
    reader: thermoTable,
    onProblem: (sentence) => onProblem(sentence ?? ''),
    onRead: (log) => {
      setFile(log);
      // The hottest is taken to sit on the slug.
      const hottest = log.probes.map((p) => p.readC.reduce((most, t) => (t > most ? t : most), -Infinity));
      const first = hottest.indexOf(Math.max(...hottest));
      setPlaces(log.probes.map((_, i) => (i === first ? 'slug' : 'far')));
    },
  });

  function keepFile(log: ThermoLog): void {
    const probes = log.probes.flatMap(({ readC }, i) => {
      const place = places[i];
      return place ? [{ place, readC: wholeSeconds(log, readC, log.airOnS) }] : [];
    });
    if (probes.length === 0) return onProblem('Expected at least one probe with a place; got none.');
    setFile(undefined);
    onTrial({ kind: 'log', ...blow, probes });
  }

  function run(): void {
    const device = new SimulatedLogger(twinOf(station, seededRandom(Date.now() % 1_000_003)), blow, LOG_S, SPEED);
    logger.current?.stop();
    logger.current = device;
    setSamples([]);
    setRunning(true);
    const got: LoggerSample[] = [];
    device.start((sample) => {
      got.push(sample);
      setSamples([...got]);
      if (sample.timeS < LOG_S) return;
      device.stop();
      setRunning(false);
      setSamples([]);
      onTrial({
        kind: 'log',
        ...blow,
        probes: device.places.map((place, i) => ({ place, readC: got.map((s) => s.readC[i]) })),
      });
    });
  }

  return (
    <Box>
      <Flex gap="3" wrap="wrap" align="center">
        <FilePick
          label="Logger’s file"
          text="Take a logger’s file"
          accept=".csv,.txt"
          onFile={(f) => void reading.take(f)}
        />
        {running ? (
          <PlainButton
            type="button"
            onClick={() => {
              logger.current?.stop();
              setRunning(false);
              setSamples([]);
            }}
          >
            Stop the logger
          </PlainButton>
        ) : (
          simulators && (
            <PlainButton type="button" onClick={run}>
              Run the simulated logger
            </PlainButton>
          )
        )}
        {running && (
          <Text role="status" fontFamily="mono">
            {samples.length} of {LOG_S} s
          </Text>
        )}
      </Flex>
      <ReadingAsk reading={reading} title={thermoTable.title} />
      {file && (
        <Flex gap="3" wrap="wrap" align="flex-end" mt="2">
          {file.probes.map((probe, i) => (
            <Named key={probe.name} name={probe.name}>
              <SelectBox
                value={places[i]}
                options={PLACES}
                onChange={(p) => setPlaces(places.with(i, p as ProbePlace | ''))}
              />
            </Named>
          ))}
          <Text fontSize="14px" color="quiet">
            air on at {file.airOnS.toFixed(0)} s
          </Text>
          <PlainButton type="button" onClick={() => keepFile(file)}>
            Use this log
          </PlainButton>
        </Flex>
      )}
      {running && samples.length > 1 && (
        <Box h="180px" mt="2">
          <LogCurves curves={['slug', 'board'].map((name, i) => ({ name, readC: samples.map((s) => s.readC[i]) }))} />
        </Box>
      )}
    </Box>
  );
}
