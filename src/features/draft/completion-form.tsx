'use client';

import { useDeferredValue, useMemo, useState, useTransition } from 'react';
import { Flex, Grid, Link, Text } from '@chakra-ui/react';
import type { ActionResult } from '@/application/action-result';
import { PART_KINDS, PART_KIND_WORDS, type PartKind } from '@/core/board';
import {
  completeBoard,
  completionChecks,
  type BoardDraft,
  type Completion,
  type CompletionSection,
  type FunctionCompletion,
  EMPTY_PORT,
  type PortCompletion,
  type RailCompletion,
} from '@/core/netlist';
import { problemText } from '@/core/result';
import { ColumnHeads, MainButton, PageLink, PlainButton, ProblemNote } from '@/ui';
import { addDraft } from './actions';
import { Choice, Field, Section } from './fields';

const RAIL_COLUMNS = '230px 90px 230px 90px 140px 130px 90px';
const FUNCTION_COLUMNS = '220px minmax(0, 260px) 170px 70px 90px';
const KINDS = PART_KINDS.map((kind) => [kind, PART_KIND_WORDS[kind]] as const);
const NEEDS = [
  ['', 'nothing'],
  ['image', 'its image'],
  ['talk', 'a contract'],
] as const;
const EMPTY_RAIL: RailCompletion = { net: '', volts: '', from: '', by: '', via: '', needs: '' };
const EMPTY_FUNCTION: FunctionCompletion = { what: '', parts: '', rails: '', minutes: '2' };

/** What a person says of a draft, section by section, checked while it is typed. */
export function CompletionForm({ draft, start }: { draft: BoardDraft; start: Completion }) {
  const [said, setSaid] = useState(start);
  const [answer, setAnswer] = useState<ActionResult>();
  const [busy, run] = useTransition();
  const set = (change: Partial<Completion>): void => setSaid({ ...said, ...change });
  // Thousands of parts are checked after the key is shown.
  const settled = useDeferredValue(said);
  const checks = useMemo(() => completionChecks(draft, settled), [draft, settled]);
  const of = (section: CompletionSection) => checks.filter((c) => c.section === section);
  const add = (): void => {
    const made = completeBoard(draft, said);
    if (!made.ok) return setAnswer({ saved: false, message: problemText(made.problems) });
    run(async () => setAnswer(await addDraft(JSON.stringify(made.value))));
  };
  return (
    <>
      <datalist id="nets-of-draft">
        {Object.keys(draft.board.nets as object).map((net) => (
          <option key={net} value={net} />
        ))}
      </datalist>
      <Section title="Names" checks={of('names')}>
        <Flex gap="4" wrap="wrap">
          <Field label="Id" value={said.id} width="11em" onChange={(id) => set({ id })} />
          <Field label="Device" value={said.device} onChange={(device) => set({ device })} />
          <Field label="Board" value={said.name} width="11em" onChange={(name) => set({ name })} />
          <Field label="Revision" value={said.revision} width="5em" onChange={(revision) => set({ revision })} />
          <Field
            label="Thick, mm"
            value={said.thicknessMm}
            width="5em"
            onChange={(thicknessMm) => set({ thicknessMm })}
          />
          <Field
            label="Copper layers"
            value={said.copperLayers}
            width="6em"
            onChange={(copperLayers) => set({ copperLayers })}
          />
          <Field
            label="Ground net"
            value={said.groundNet}
            list="nets-of-draft"
            onChange={(groundNet) => set({ groundNet })}
          />
        </Flex>
      </Section>
      <Section title="Parts" checks={of('parts')}>
        <PartList draft={draft} said={said} onChange={set} />
      </Section>
      <Section title="Rails, in the order in which they come up" checks={of('rails')}>
        <RailList rails={said.rails} onChange={(rails) => set({ rails })} />
      </Section>
      <Section title="Ports" checks={of('port')}>
        <PortList ports={said.ports} onChange={(ports) => set({ ports })} />
      </Section>
      <Section title="Functions" checks={of('functions')}>
        <FunctionList functions={said.functions} onChange={(functions) => set({ functions })} />
      </Section>
      <Section title="Heat limits" checks={of('limits')}>
        <Flex gap="4" wrap="wrap">
          <Field label="Plastic bodies" value={said.plastic} width="16em" onChange={(plastic) => set({ plastic })} />
          <Field
            label="With underfill of their own"
            value={said.underfilled}
            width="16em"
            onChange={(underfilled) => set({ underfilled })}
          />
        </Flex>
      </Section>
      <Flex gap="4" align="baseline" borderTop="1px solid" borderColor="rule" pt="3">
        <MainButton type="button" disabled={busy || checks.length > 0} onClick={add}>
          Add this board
        </MainButton>
        <Text as="span" color={checks.length > 0 ? 'amberText' : 'leaf'} role="status">
          {answer?.saved ? answer.message : checks.length > 0 ? `${checks.length} things still missing.` : 'Complete.'}
        </Text>
        {answer?.saved && (
          <Link asChild color="copperText" textDecoration="underline">
            <PageLink href={`/library/${said.id}`}>open it</PageLink>
          </Link>
        )}
      </Flex>
      {answer && !answer.saved && <ProblemNote text={answer.message} />}
      <Text fontSize="14px" color="quiet" mt="2">
        Resistances of chips, diode drops and copper start as engineering estimates; readings of good boards take their
        place.
      </Text>
    </>
  );
}

type Change = (change: Partial<Completion>) => void;

/** So many parts are shown at most: those that are asked about, then those that are looked for. */
const MOST_SHOWN = 60;

/** Parts with their kind, resistors with their value: what the file could only guess, and any that is looked for. */
function PartList({ draft, said, onChange }: { draft: BoardDraft; said: Completion; onChange: Change }) {
  const [find, setFind] = useState('');
  const asked = new Set(draft.asked);
  const wanted = find.trim().toUpperCase();
  const parts = draft.board.parts as readonly { ref: string; what: string }[];
  const sorted = parts
    .filter(({ ref }) =>
      wanted === '' ? draft.near === undefined || asked.has(ref) : ref.toUpperCase().startsWith(wanted),
    )
    .sort(
      (a, b) =>
        Number(asked.has(b.ref)) - Number(asked.has(a.ref)) || a.ref.localeCompare(b.ref, 'en', { numeric: true }),
    );
  const shown = sorted.slice(0, draft.near ? MOST_SHOWN : sorted.length);
  return (
    <>
      {draft.near && (
        <Flex gap="4" align="flex-end" mb="2">
          <Field label="Find a part" value={find} width="8em" onChange={setFind} />
          <Text fontSize="14px" color="quiet">
            {shown.length === 0
              ? 'Of the parts near the port nothing is in doubt.'
              : `${shown.length} of ${parts.length} parts${wanted === '' ? ': those near the port that are in doubt' : ''}`}
          </Text>
        </Flex>
      )}
      <Grid
        templateColumns="repeat(auto-fill, minmax(255px, 1fr))"
        columnGap="5"
        rowGap="1"
        maxH="230px"
        overflowY="auto"
      >
        {shown.map(({ ref }) => (
          <Flex key={ref} gap="2" align="baseline" minW="0">
            <Text as="span" fontFamily="mono" fontWeight="700" w="4em">
              {ref}
            </Text>
            <Choice<PartKind>
              label={`Kind of ${ref}`}
              value={said.kinds[ref]}
              options={KINDS}
              onChange={(kind) => onChange({ kinds: { ...said.kinds, [ref]: kind } })}
            />
            {said.kinds[ref] === 'resistor' && (
              <Field
                label={`Value of ${ref}`}
                hidden
                width="5em"
                value={said.ohms[ref] ?? ''}
                onChange={(text) => onChange({ ohms: { ...said.ohms, [ref]: text } })}
              />
            )}
          </Flex>
        ))}
      </Grid>
    </>
  );
}

function PortList({
  ports,
  onChange,
}: {
  ports: readonly PortCompletion[];
  onChange: (ports: PortCompletion[]) => void;
}) {
  return (
    <>
      {ports.map((port, i) => (
        <Flex key={i} gap="4" wrap="wrap" align="flex-end" mb="2">
          <PortFields
            port={port}
            suffix={i === 0 ? '' : ` of port ${i + 1}`}
            onChange={(change) => onChange(ports.map((p, k) => (k === i ? { ...p, ...change } : p)))}
          />
          {ports.length > 1 && (
            <PlainButton type="button" onClick={() => onChange(ports.filter((_, k) => k !== i))}>
              Take out
            </PlainButton>
          )}
        </Flex>
      ))}
      <PlainButton type="button" onClick={() => onChange([...ports, EMPTY_PORT])}>
        Add a port
      </PlainButton>
    </>
  );
}

const PORT_FIELDS = [
  ['Connector', 'connector', '5em', undefined],
  ['Controller', 'controller', '5em', undefined],
  ['Image in', 'imagePart', '5em', undefined],
  ['Level, V', 'designV', '5em', undefined],
  ['Healthy, A', 'healthyA', '6em', undefined],
  ['Bus net', 'busNet', '7em', 'nets-of-draft'],
  ['CC net, A way', 'cc1Net', '7em', 'nets-of-draft'],
  ['CC net, B way', 'cc2Net', '7em', 'nets-of-draft'],
  ['Rails its controller needs', 'controllerRails', '12em', undefined],
] as const;

interface PortFieldsProps {
  readonly port: PortCompletion;
  readonly suffix: string;
  readonly onChange: (change: Partial<PortCompletion>) => void;
}

const PortFields = ({ port, suffix, onChange }: PortFieldsProps) =>
  PORT_FIELDS.map(([label, name, width, list]) => (
    <Field
      key={name}
      label={`${label}${suffix}`}
      value={port[name]}
      width={width}
      list={list}
      onChange={(text) => onChange({ [name]: text })}
    />
  ));

function RailList({
  rails,
  onChange,
}: {
  rails: readonly RailCompletion[];
  onChange: (rails: RailCompletion[]) => void;
}) {
  const change = (i: number, part: Partial<RailCompletion>): void =>
    onChange(rails.map((r, k) => (k === i ? { ...r, ...part } : r)));
  const field = (i: number, name: Exclude<keyof RailCompletion, 'needs'>, label: string, list?: string) => (
    <Field
      label={`${label} of rail ${i + 1}`}
      hidden
      width="100%"
      value={rails[i][name]}
      list={list}
      onChange={(text) => change(i, { [name]: name === 'volts' ? text.toLowerCase() : text })}
    />
  );
  return (
    <>
      {rails.length > 0 && (
        <ColumnHeads
          columns={RAIL_COLUMNS}
          names={['Net', 'Volts, bus', 'From rail', 'Made by', 'Through', 'Waits for', '']}
          maxW="1120px"
        />
      )}
      {rails.map((r, i) => (
        <Grid key={i} templateColumns={RAIL_COLUMNS} columnGap="4" alignItems="baseline" py="0.5">
          {field(i, 'net', 'Net', 'nets-of-draft')}
          {field(i, 'volts', 'Volts')}
          {field(i, 'from', 'Source')}
          {field(i, 'by', 'Maker')}
          {field(i, 'via', 'Series parts')}
          <Choice
            label={`Condition of rail ${i + 1}`}
            value={r.needs}
            options={NEEDS}
            onChange={(needs) => change(i, { needs })}
          />
          <PlainButton type="button" onClick={() => onChange(rails.filter((_, k) => k !== i))}>
            Take out
          </PlainButton>
        </Grid>
      ))}
      <Flex mt="2">
        <PlainButton type="button" onClick={() => onChange([...rails, EMPTY_RAIL])}>
          Add a rail
        </PlainButton>
      </Flex>
    </>
  );
}

function FunctionList({
  functions,
  onChange,
}: {
  functions: readonly FunctionCompletion[];
  onChange: (functions: FunctionCompletion[]) => void;
}) {
  const change = (i: number, part: Partial<FunctionCompletion>): void =>
    onChange(functions.map((f, k) => (k === i ? { ...f, ...part } : f)));
  const field = (i: number, name: keyof FunctionCompletion, label: string) => (
    <Field
      label={`${label} of function ${i + 1}`}
      hidden
      width="100%"
      value={functions[i][name]}
      onChange={(text) => change(i, { [name]: text })}
    />
  );
  return (
    <>
      {functions.length > 0 && (
        <ColumnHeads
          columns={FUNCTION_COLUMNS}
          names={['What it does', 'Parts', 'Rails', 'Minutes', '']}
          maxW="860px"
        />
      )}
      {functions.map((_, i) => (
        <Grid key={i} templateColumns={FUNCTION_COLUMNS} columnGap="4" alignItems="baseline" py="0.5">
          {field(i, 'what', 'Words')}
          {field(i, 'parts', 'Parts')}
          {field(i, 'rails', 'Rails')}
          {field(i, 'minutes', 'Minutes')}
          <PlainButton type="button" onClick={() => onChange(functions.filter((__, k) => k !== i))}>
            Take out
          </PlainButton>
        </Grid>
      ))}
      <Flex mt="2">
        <PlainButton type="button" onClick={() => onChange([...functions, EMPTY_FUNCTION])}>
          Add a function
        </PlainButton>
      </Flex>
    </>
  );
}
