'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import {
  copiesOf,
  fieldsOf,
  IDENTITY_REASONS,
  type IdentityReason,
  type ImageFamily,
  type Region,
  type Source,
  type Transplant,
} from '@/core/image';
import { formatOffset } from '@/core/units';
import { Named, SelectBox, TextInput } from '@/ui';
import type { ImageBench } from './queries';

interface TableProps {
  readonly bench: ImageBench;
  readonly family: ImageFamily;
  readonly plan: Transplant;
  readonly onPlan: (plan: Transplant) => void;
}

const SOURCE_WORDS: Readonly<Record<Source, string>> = {
  patient: 'the patient’s',
  donor: 'the donor’s',
  copy: 'the patient’s own copy',
  computed: 'computed',
};

/** A rule for each region with its reason, the fields that can be set, and what an identity of another unit asks for. */
export function TransplantTable({ bench, family, plan, onPlan }: TableProps) {
  const hasDonor = bench.roles.donor !== undefined;
  return (
    <>
      <chakra.table w="100%" mt="3" fontSize="14px" css={{ borderCollapse: 'collapse' }}>
        <chakra.thead>
          <chakra.tr color="quiet" fontSize="13px" textAlign="left">
            {['Region', 'Offset', hasDonor ? 'Donor against patient' : 'Patient', 'The new image takes'].map((h) => (
              <chakra.th key={h} fontWeight="700" pb="1" borderBottom="1px solid" borderColor="rule">
                {h}
              </chakra.th>
            ))}
          </chakra.tr>
        </chakra.thead>
        <chakra.tbody>
          {bench.differences.map(({ region, differingBytes, words }, k) => (
            <chakra.tr key={region.name} borderBottom="1px solid" borderColor="rule">
              <chakra.td py="1" pr="3" fontWeight="700" whiteSpace="nowrap">
                {region.name}
              </chakra.td>
              <chakra.td fontFamily="mono" pr="3" fontSize="13px">
                {formatOffset(region.offset)}
              </chakra.td>
              <chakra.td pr="2" color={differingBytes > 0 && region.meaning === 'code' ? 'rust' : 'ink'}>
                {hasDonor
                  ? differingBytes > 0
                    ? `${words} (${differingBytes.toLocaleString('en')})`
                    : words
                  : verdictWords(bench, region)}
              </chakra.td>
              <chakra.td>
                <SourceSelect {...{ bench, family, plan, onPlan }} region={bench.differences[k].region} />
              </chakra.td>
            </chakra.tr>
          ))}
        </chakra.tbody>
      </chakra.table>
      <FieldInputs family={family} plan={plan} onPlan={onPlan} />
      <IdentityPart family={family} plan={plan} onPlan={onPlan} />
    </>
  );
}

function verdictWords({ roles }: ImageBench, { name, meaning }: Region): string {
  if (meaning !== 'checksum') return '';
  return roles.patient!.verdict.checksums.find((c) => c.region === name)?.holds ? 'holds' : 'does not hold';
}

function SourceSelect({ bench, family, plan, onPlan, region }: TableProps & { region: Region }) {
  const options: readonly Source[] =
    region.meaning === 'checksum'
      ? ['computed']
      : [
          'patient',
          ...(bench.roles.donor ? (['donor'] as const) : []),
          ...(copiesOf(family, region).length > 0 ? (['copy'] as const) : []),
        ];
  const taken = plan.take[region.name];
  const why = bench.proposed?.plan.take[region.name] === taken ? bench.proposed?.why[region.name] : 'chosen by hand';
  if (region.meaning === 'checksum') return <Text color="quiet">computed</Text>;
  return (
    <Flex gap="2" align="baseline">
      <chakra.select
        aria-label={`Source of ${region.name}`}
        value={taken}
        onChange={(e) => onPlan({ ...plan, take: { ...plan.take, [region.name]: e.target.value as Source } })}
        bg="transparent"
        borderBottom="1px dotted"
        borderColor="quiet"
      >
        {options.map((s) => (
          <option key={s} value={s}>
            {SOURCE_WORDS[s]}
          </option>
        ))}
      </chakra.select>
      <Text as="span" color="quiet" fontSize="13px">
        {why}
      </Text>
    </Flex>
  );
}

function FieldInputs({ family, plan, onPlan }: Pick<TableProps, 'family' | 'plan' | 'onPlan'>) {
  const fields = fieldsOf(family);
  if (fields.length === 0) return null;
  return (
    <Flex gap="4" mt="3" align="end" wrap="wrap">
      {fields.map(({ name, bytes }) => (
        <Named key={name} name={`set ${name}`}>
          <TextInput
            w="9em"
            fontFamily="mono"
            inputMode="numeric"
            placeholder="as it comes"
            aria-label={`Set ${name}`}
            value={plan.set[name] ?? ''}
            onChange={(e) => {
              const digits = e.target.value.replace(/\D/g, '');
              const others = Object.entries(plan.set).filter(([other]) => other !== name);
              const own = digits === '' ? [] : [[name, Number(digits)] as const];
              onPlan({ ...plan, set: Object.fromEntries([...others, ...own]) });
            }}
            title={`0 to ${2 ** (8 * bytes) - 1}`}
          />
        </Named>
      ))}
    </Flex>
  );
}

const REASONS = Object.entries(IDENTITY_REASONS) as [IdentityReason, string][];

/** Shown where the identity is to come from the donor: the reason has a name, and stays with the job. */
function IdentityPart({ family, plan, onPlan }: Pick<TableProps, 'family' | 'plan' | 'onPlan'>) {
  const moves = family.regions.some((r) => r.meaning === 'identity' && plan.take[r.name] === 'donor');
  if (!moves) return null;
  return (
    <Box mt="3" maxW="720px">
      <Text fontSize="14px" borderLeft="3px solid" borderColor="amber" pl="3">
        <Text as="strong" color="amberText">
          Identity of another unit.
        </Text>{' '}
        Nothing here opens a lock or passes an ownership check, and that must not be tried: make sure whose device it
        is, and follow the law of the place.
      </Text>
      <Flex gap="3" mt="2" align="baseline" fontSize="14px">
        <Text>The identity moves, as</Text>
        <SelectBox
          label="Reason for the identity"
          value={plan.reason ?? ''}
          options={[['', 'name the reason'], ...REASONS]}
          onChange={(value) => onPlan({ ...plan, reason: value === '' ? undefined : (value as IdentityReason) })}
        />
      </Flex>
    </Box>
  );
}
