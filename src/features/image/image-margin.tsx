import { Text } from '@chakra-ui/react';
import { FigureLine, MarginPart } from '@/ui';
import { hex32 } from '@/core/image';
import type { ImageBench } from './queries';

const NAMES = { patient: 'Patient', donor: 'Donor', merged: 'Merged' } as const;

/** The checksums of each image, and the rules of the merge. */
export function ImageMargin({ bench }: { bench: ImageBench }) {
  return (
    <>
      {(['merged', 'patient', 'donor'] as const).flatMap((role) => {
        const view = bench.roles[role];
        if (!view) return [];
        return [
          <MarginPart key={role} title={`${NAMES[role]}, ${view.verdict.sound ? 'sound' : 'not sound'}`}>
            {view.verdict.checksums.map((c) => (
              <FigureLine
                key={c.region}
                name={`${c.region}${c.holds ? '' : ', fails'}`}
                value={hex32(c.stored)}
                colour={c.holds ? 'leaf' : 'rust'}
              />
            ))}
          </MarginPart>,
        ];
      })}
      <MarginPart title="Rules">
        <Text fontSize="14px" mb="2">
          Code comes from the sound donor; settings, identity and calibration stay the patient’s; checksums are
          computed.
        </Text>
        <Text fontSize="14px">The identity of a unit is never copied to another: such a rule is refused.</Text>
      </MarginPart>
    </>
  );
}
