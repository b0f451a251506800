'use client';

import type { ReactNode } from 'react';
import { Box, Flex, Heading, Text, chakra } from '@chakra-ui/react';
import type { JobReport } from '@/core/job';

/** The report as a page that prints on one sheet. */
export function ReportSheet({ report }: { report: JobReport }) {
  return (
    <Box maxW="780px" mx="auto" px="8" py="8" css={{ '@media print': { padding: 0, fontSize: '11px' } }}>
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
      {report.reason && <Text fontWeight="700">Closed with open gates, because: {report.reason}</Text>}
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
      <Part title="Plug ways">
        <Rows head={['Way', 'Before', 'Now']} rows={report.plugs.map((p) => [p.way, p.before, p.now])} />
      </Part>
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
