'use client';

import type { ReactNode } from 'react';
import { Box, Flex, Heading, Text, chakra } from '@chakra-ui/react';
import { tone } from '@/ui';
import type { JobReport } from '@/core/job';
import { traceFigures, type TraceFigure } from './trace-figure';

/** The report as a page that prints on one sheet. */
export function ReportSheet({ report }: { report: JobReport }) {
  return (
    <Box maxW="780px" mx="auto" px="8" py="8" css={{ '@media print': { padding: 0, fontSize: '11px' } }}>
      {report.training && (
        <Text border="2px solid" borderColor="amber" color="amberText" fontWeight="800" px="3" py="1" mb="3">
          TRAINING: a job to learn on, with simulated values. No repair of a real device.
        </Text>
      )}
      <Flex justify="space-between" align="baseline" borderBottom="1.5px solid" borderColor="ink" pb="2" mb="4">
        <Heading as="h1" fontSize="26px" fontWeight="700">
          {report.title}
        </Heading>
        <Text fontWeight="800">{report.shop}</Text>
      </Flex>
      <Text fontSize="20px" fontWeight="700">
        {report.outcome}
        {report.closed ? `, ${report.closed}` : ''}
      </Text>
      <Text>
        {report.device}. Opened {report.opened}.
      </Text>
      <Text mt="2">Symptom: {report.symptom}</Text>
      <Text>Cause: {report.cause}</Text>
      {report.past.map((line) => (
        <Text key={line}>{line}</Text>
      ))}
      {report.reason && <Text fontWeight="700">Closed with gates not met, because: {report.reason}</Text>}
      <Part title="What was found">
        {report.findings.map((f) => (
          <Text key={f.stage}>
            <strong>{f.stage}.</strong> {f.words}
          </Text>
        ))}
      </Part>
      <Part title="What was done">
        {report.work.map((w) => (
          <Text key={w}>{w}</Text>
        ))}
      </Part>
      {report.parts.length > 0 && (
        <Part title="Parts used">
          <Rows head={['', '']} rows={report.parts.map((p) => [p.what, p.from])} />
        </Part>
      )}
      {report.bill.length > 0 && (
        <Part title="Work and price">
          <Rows head={['', '']} rows={report.bill.map((b) => [b.what, b.figure])} />
        </Part>
      )}
      <Part title="Rails">
        <Rows
          head={['Rail', 'Wanted', 'Before', 'Now', '']}
          rows={report.rails.map((r) => [r.rail, r.wanted, r.before, r.now, r.state])}
        />
      </Part>
      {report.origins && (
        <Text fontSize="13px" color="quiet">
          {report.origins}
        </Text>
      )}
      {report.seal && (
        <Text fontSize="13px" color="quiet">
          Seal of the record: {report.seal}
        </Text>
      )}
      <Part title="Plug ways">
        <Rows head={['Way', 'Before', 'Now']} rows={report.plugs.map((p) => [p.way, p.before, p.now])} />
      </Part>
      {report.traces.length > 0 && (
        <Flex gap="6" mt="2">
          {traceFigures(report.traces).map((f) => (
            <Figure key={f.title} figure={f} />
          ))}
        </Flex>
      )}
      <Part title="Functions and gates">
        <Rows
          head={['', '']}
          rows={[...report.functions.map((f) => [f.what, f.state]), ...report.gates.map((g) => [g.words, g.state])]}
        />
      </Part>
      {report.pictures.length > 0 && (
        <Part title="Pictures">
          {report.pictures.map((p) => (
            <Box key={p.sha256} mb="3" css={{ breakInside: 'avoid' }}>
              {/* eslint-disable-next-line @next/next/no-img-element -- kept bytes, shown as they are */}
              <img src={`/pictures/${p.sha256}`} alt={p.words} style={{ maxWidth: '100%', maxHeight: 420 }} />
              <Text fontSize="13px">{p.words}</Text>
            </Box>
          ))}
        </Part>
      )}
      {report.notes && report.notes.length > 0 && (
        <Part title="Notes of the bench, private">
          {report.notes.map((note, k) => (
            <Text key={k}>{note}</Text>
          ))}
        </Part>
      )}
      {report.closing && <Text mt="5">{report.closing}</Text>}
    </Box>
  );
}

/** Dashes tell the second way from the first where the print has no colour. */
const DASHES = [undefined, '4 2'] as const;

function Figure({ figure: { title, width, height, maxA, endS, lines } }: { figure: TraceFigure }) {
  return (
    <Box flex="1">
      <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`Current over time, ${title}`} width="100%">
        <path d={`M0 0V${height}H${width}`} fill="none" stroke={tone.quiet} strokeWidth={0.8} />
        {lines.map((line, i) => (
          <path
            key={line.way}
            d={line.d}
            fill="none"
            stroke={tone.ink}
            strokeWidth={1}
            strokeDasharray={DASHES[i % 2]}
          />
        ))}
      </svg>
      <Text fontSize="13px" color="quiet">
        {title}: {lines.map((line, i) => `${line.way}${i % 2 === 1 ? ' (dashed)' : ''}`).join(', ')}; {maxA.toFixed(2)}{' '}
        A high, {Math.round(endS)} s long
      </Text>
    </Box>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box as="section" mt="4">
      <Heading as="h2" fontSize="14px" fontWeight="700" borderBottom="1px solid" borderColor="rule" mb="1">
        {title}
      </Heading>
      {children}
    </Box>
  );
}

function Rows({ head, rows }: { head: readonly string[]; rows: readonly (readonly string[])[] }) {
  return (
    <chakra.table w="100%" fontSize="13px" css={{ borderCollapse: 'collapse' }}>
      {head.some(Boolean) && (
        <chakra.thead>
          <chakra.tr>
            {head.map((h, i) => (
              <chakra.th key={i} textAlign="left" fontWeight="600" color="quiet">
                {h}
              </chakra.th>
            ))}
          </chakra.tr>
        </chakra.thead>
      )}
      <chakra.tbody>
        {rows.map((row) => (
          <chakra.tr key={row.join('|')}>
            {row.map((cell, i) => (
              <chakra.td key={i} fontFamily={i === 0 ? undefined : 'mono'} pr="3">
                {cell}
              </chakra.td>
            ))}
          </chakra.tr>
        ))}
      </chakra.tbody>
    </chakra.table>
  );
}
