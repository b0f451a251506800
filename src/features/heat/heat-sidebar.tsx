'use client';

import { useState } from 'react';
import dynamic from 'next/dynamic';
import { Flex, Text, chakra } from '@chakra-ui/react';
import { RAMP_LIMIT_C_PER_S, UNDERFILLS, adviceOn, offsetLabel } from '@/core/heat';
import { ALLOYS, alloySchema } from '@/core/joints';
import { formatSeconds } from '@/core/units';
import { FigureLine, MainButton, SidebarPart, PlainButton } from '@/ui';
import { useHeatDesk } from './desk';
import { ComparePart } from './compare-part';
import { ExportPart } from './export-part';
import { SearchPart } from './search-part';

/** What reads a logger's file comes once there is a plan to hold it against. */
const MarkPart = dynamic(() => import('./mark-part').then((m) => m.MarkPart), { ssr: false });

const MOST_NEIGHBOURS = 4;

/** The verdict as figures against their limits, then what the plan rests on. */
export function HeatSidebar() {
  const { last } = useHeatDesk();
  return (
    <>
      {last && <VerdictFigures />}
      {last && <SearchPart />}
      {last && <ComparePart />}
      {last && <AdvicePart />}
      <PlanBasis />
      {last && <MarkPart />}
      <ExportPart />
    </>
  );
}

/** What a practitioner would say beside the curves. */
function AdvicePart() {
  const { station, last } = useHeatDesk();
  const { board, plan, run, verdict } = last!;
  const advice = adviceOn(board, station, plan, run, verdict);
  if (advice.length === 0) return null;
  return (
    <SidebarPart title="To watch">
      {advice.map((a) => (
        <Text key={a.message} fontSize="14px" mb="1">
          {a.message}
        </Text>
      ))}
    </SidebarPart>
  );
}

function VerdictFigures() {
  const { last, kept, keep, aim, copper } = useHeatDesk();
  const { verdict, plan } = last!;
  const melts = verdict.reachedAtS !== null;
  return (
    <SidebarPart title="Verdict">
      <FigureLine
        name={`Coldest ${plan.purpose === 'site' ? 'pad' : 'joint'} at most, of ${verdict.reachC}`}
        value={`${Math.round(verdict.coldestPeakC)} °C`}
        colour={melts ? 'leaf' : 'rust'}
      />
      <FigureLine
        name={verdict.ownLimitC === null ? 'All joints molten from' : 'Everywhere there from'}
        value={melts ? formatSeconds(verdict.reachedAtS!) : 'never'}
        colour={melts ? 'ink' : 'rust'}
      />
      {verdict.ownLimitC !== null && (
        <FigureLine
          name={`Its hottest joint, of ${Math.round(verdict.ownLimitC)}`}
          value={`${Math.round(verdict.hottestPeakC)} °C`}
          colour={verdict.hottestPeakC <= verdict.ownLimitC ? 'leaf' : 'rust'}
        />
      )}
      <FigureLine name={`Time above ${verdict.reachC}`} value={formatSeconds(verdict.aboveReachS)} />
      <FigureLine
        name={`Fastest rise, of ${RAMP_LIMIT_C_PER_S}`}
        value={`${verdict.fastestRiseCPerS.toFixed(1)} °C/s`}
        colour={verdict.fastestRiseCPerS <= RAMP_LIMIT_C_PER_S ? 'leaf' : 'amberText'}
      />
      <FigureLine
        name={`${plan.partRef} body`}
        value={`${Math.round(verdict.bodyPeakC)} of ${verdict.bodyLimitC}`}
        colour={verdict.bodyPeakC <= verdict.bodyLimitC ? 'leaf' : 'rust'}
      />
      {verdict.neighbours.slice(0, MOST_NEIGHBOURS).map((n) => (
        <FigureLine
          key={n.ref}
          name={`${n.ref} ${n.limited === 'body' ? 'plastic' : 'joints'}${plan.covers.includes(n.ref) ? ', covered' : ''}${n.holds ? '' : ', too hot'}`}
          value={`${Math.round(n.peakC)} of ${Math.round(n.limitC)}`}
          colour={n.holds ? 'leaf' : 'rust'}
        />
      ))}
      {verdict.swimming.length > 0 && (
        <Text fontSize="14px" mt="2">
          Swim too: {verdict.swimming.slice(0, 8).join(', ')}
          {verdict.swimming.length > 8 ? ` and ${verdict.swimming.length - 8} more` : ''}. Less flow, or tape over them.
        </Text>
      )}
      <Flex mt="3" gap="3" align="center">
        {copper !== 1 ? (
          <Text fontSize="14px" color="amberText">
            What if, not the board as it is: nothing to keep.
          </Text>
        ) : kept ? (
          <Text color="leaf" fontWeight="700">
            Kept with the job.
          </Text>
        ) : (
          verdict.holds && (
            <MainButton type="button" onClick={() => void keep()}>
              Keep this plan
            </MainButton>
          )
        )}
        <PlainButton type="button" onClick={aim}>
          Aim the dial
        </PlainButton>
      </Flex>
      {copper === 1 && !kept && !verdict.holds && <KeepAllTheSame />}
    </SidebarPart>
  );
}

/** A plan that breaks a limit is kept with the reason for it. */
function KeepAllTheSame() {
  const { keep } = useHeatDesk();
  const [reason, setReason] = useState('');
  return (
    <Flex
      as="form"
      mt="2"
      gap="2"
      align="flex-end"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim()) void keep(undefined, reason.trim());
      }}
    >
      <chakra.label flex="1" fontSize="14px">
        This plan breaks a limit. Why it is kept all the same
        <chakra.input
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          maxLength={200}
          bg="transparent"
          borderBottom="1px solid"
          borderColor="quiet"
          w="100%"
        />
      </chakra.label>
      <PlainButton type="submit" disabled={!reason.trim()}>
        Keep it
      </PlainButton>
    </Flex>
  );
}

function PlanBasis() {
  const { job, plan, station, stations, setStation, change, last, status, copper, setCopper } = useHeatDesk();
  const beside = offsetLabel(job.board, plan);
  const chips = job.board.parts.filter((p) => !['capacitor', 'resistor'].includes(p.kind));
  return (
    <SidebarPart title="What it rests on">
      {plan.purpose === 'partBoards' ? (
        <Text fontSize="14px" py="0.5">
          Upper board {plan.stack!.sizeMm.join(' × ')} mm, centre {plan.stack!.xMm}, {plan.stack!.yMm} mm, gap{' '}
          {plan.stack!.gapMm} mm. Type: stack 30x20 at 35,30 gap 0.8.
        </Text>
      ) : (
        <Choice
          label="Part"
          value={plan.partRef}
          onChange={(ref) => change({ edit: 'part', ref })}
          options={chips.map((p) => [p.ref, `${p.ref} ${p.what}`])}
        />
      )}
      {plan.purpose === 'soften' && (
        <Choice
          label="Underfill"
          value={String(plan.softensC)}
          onChange={(v) => change({ edit: 'softens', softensC: Number(v) })}
          options={underfillOptions(plan.softensC)}
        />
      )}
      <Choice label="Station" value={station.id} onChange={setStation} options={stations.map((s) => [s.id, s.name])} />
      <Choice
        label="Nozzle"
        value={String(plan.nozzleMm)}
        onChange={(v) => change({ edit: 'nozzle', mm: Number(v) })}
        options={station.nozzlesMm.map((n) => [String(n), `${n} mm`])}
      />
      <Choice
        label="Alloy"
        value={plan.alloy}
        onChange={(v) => change({ edit: 'alloy', alloy: alloySchema.parse(v) })}
        options={alloySchema.options.map((a) => [a, `${a}, ${ALLOYS[a].words}`])}
      />
      <Choice
        label="Plate"
        value={plan.plateSetC === null ? 'off' : String(plan.plateSetC)}
        onChange={(v) => change({ edit: 'plate', setC: v === 'off' ? null : Number(v) })}
        options={[
          ['off', 'no plate'],
          ...(station.plate
            ? [...new Set([80, 100, 120, 150, ...(plan.plateSetC === null ? [] : [plan.plateSetC])])].map(
                (c): [string, string] => [String(c), `${c} °C below`],
              )
            : []),
        ]}
      />
      <Choice label="Copper" value={String(copper)} onChange={(v) => setCopper(Number(v))} options={COPPER_FACTORS} />
      <Text fontSize="13px" color="quiet" mt="2">
        {beside ? `Nozzle ${beside}. ` : ''}
        {plan.covers.length > 0 ? `Covered: ${plan.covers.join(', ')}. ` : ''}
        {last &&
          `${last.run.cells.toLocaleString('en')} cells, heat balance within ${(last.run.energyError * 100).toFixed(2)} %`}
        {status.kind === 'done' && `, ${(status.tookMs / 1000).toFixed(1)} s.`}
      </Text>
    </SidebarPart>
  );
}

/** What if the board held another amount of copper. */
const COPPER_FACTORS: readonly (readonly [string, string])[] = [
  ['1', 'as in the board file'],
  ['0.6', 'what if: much less'],
  ['1.4', 'what if: more'],
  ['2', 'what if: twice as much'],
];

function underfillOptions(softensC: number): [string, string][] {
  const known = Object.values(UNDERFILLS).map((u): [string, string] => [
    String(u.softensC),
    `${u.words}, ${u.softensC} °C`,
  ]);
  return known.some(([c]) => c === String(softensC))
    ? known
    : [...known, [String(softensC), `own entry, ${softensC} °C`]];
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}) {
  return (
    <chakra.label display="block" py="0.5">
      <Flex align="baseline" gap="2">
        <Text as="span" fontSize="14px" w="4.2em" color="quiet">
          {label}
        </Text>
        <chakra.select
          value={value}
          onChange={(e) => onChange(e.target.value)}
          bg="transparent"
          borderBottom="1px dotted"
          borderColor="quiet"
          fontSize="14px"
          flex="1"
          minW="0"
        >
          {options.map(([v, name]) => (
            <option key={v} value={v}>
              {name}
            </option>
          ))}
        </chakra.select>
      </Flex>
    </chakra.label>
  );
}
