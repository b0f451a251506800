'use client';

import { useState } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { HeatStep } from '@/core/heat';
import { useEntryOffer } from '@/ui';
import { useHeatDesk } from './desk';

/** The steps in order; every figure can be typed over here or changed from the entry line. */
export function HeatSteps() {
  const { plan } = useHeatDesk();
  return (
    <Flex
      as="ol"
      mt="3"
      pt="2.5"
      borderTop="1px solid"
      borderColor="rule"
      listStyleType="none"
      overflowX="auto"
      flexShrink="0"
      tabIndex={0}
      aria-label="Steps of the plan"
    >
      {plan.steps.map((step, i) => (
        <Step key={i} step={step} index={i} />
      ))}
    </Flex>
  );
}

function Step({ step, index }: { step: HeatStep; index: number }) {
  const { change } = useHeatDesk();
  const { offerText } = useEntryOffer();
  // What cannot be set goes to the entry line, which says why.
  const edit = (setting: StepSetting, value: number, word: string): void => {
    if (!change({ edit: 'step', index, change: { [setting]: value } })) offerText(`step ${index + 1} ${word}`);
  };
  return (
    <Box
      as="li"
      flex="1"
      minW="118px"
      px="3"
      _first={{ pl: '0' }}
      borderLeft={index > 0 ? '1px solid' : undefined}
      borderColor="rule"
    >
      <Text fontSize="13px" color="quiet" lineHeight="1.3" whiteSpace="nowrap">
        {index + 1} · {step.name}
      </Text>
      {step.airSetC === null ? (
        <Text fontFamily="mono" fontWeight="700" fontSize="17px">
          air off
        </Text>
      ) : (
        <StepFigure
          label={`Step ${index + 1}, dial in °C`}
          setting="airSetC"
          value={step.airSetC}
          unit="°C"
          large
          onEdit={edit}
        />
      )}
      <Flex gap="2" wrap="wrap">
        <StepFigure
          label={`Step ${index + 1}, seconds`}
          setting="durationS"
          value={step.durationS}
          unit="s"
          onEdit={edit}
        />
        {step.airSetC !== null && (
          <>
            <StepFigure
              label={`Step ${index + 1}, flow in l/min`}
              setting="flowLpm"
              value={step.flowLpm}
              unit="l"
              onEdit={edit}
            />
            <StepFigure
              label={`Step ${index + 1}, height in mm`}
              setting="heightMm"
              value={step.heightMm}
              unit="mm"
              onEdit={edit}
            />
          </>
        )}
      </Flex>
    </Box>
  );
}

type StepSetting = Exclude<keyof HeatStep, 'name'>;

interface StepFigureProps {
  readonly label: string;
  readonly value: number;
  readonly unit: string;
  readonly large?: boolean;
  readonly setting: StepSetting;
  /** @param word the same as the entry line would have it. */
  readonly onEdit: (setting: StepSetting, value: number, word: string) => void;
}

/** A figure that is typed over in place; it counts when the field is left or Enter is pressed. */
function StepFigure({ label, setting, value, unit, large, onEdit }: StepFigureProps) {
  const { takeOver } = useHeatDesk();
  /** What is being typed; it outlives a value that changes under it. */
  const [draft, setDraft] = useState<string>();
  const commit = (): void => {
    const typed = draft?.trim() ?? '';
    setDraft(undefined);
    if (typed !== '' && Number(typed) !== value) onEdit(setting, Number(typed), `${typed}${unit === '°C' ? '' : unit}`);
  };
  return (
    <chakra.label
      display="inline-flex"
      alignItems="baseline"
      gap="0.5"
      fontFamily="mono"
      fontSize={large ? '17px' : '13px'}
      fontWeight={large ? '700' : '500'}
      color={large ? 'ink' : 'quiet'}
      whiteSpace="nowrap"
    >
      <chakra.input
        aria-label={label}
        value={draft ?? value}
        inputMode="numeric"
        w={`${Math.max(2, String(value).length) + 0.4}ch`}
        bg="transparent"
        borderBottom="1px dotted"
        borderColor="quiet"
        onChange={(e) => {
          takeOver();
          setDraft(e.target.value);
        }}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      {unit === 'l' ? 'l/min' : unit}
    </chakra.label>
  );
}
