'use client';

import { useState } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import { SPECIMENS, type Specimen } from '@/devices/microscope';
import { FilePick, PlainButton, ProblemNote, SelectBox } from '@/ui';

export interface PictureSourceProps {
  readonly label: string;
  /** Whether the simulated microscope is offered. */
  readonly simulators: boolean;
  readonly busy: boolean;
  readonly tookMs?: number;
  readonly problem?: string;
  readonly onFile: (file: File) => void;
  readonly onTake: (specimen: Specimen) => void;
}

/** Where a picture comes from: a file, or the simulated microscope. */
export function PictureSource({ label, simulators, busy, tookMs, problem, onFile, onTake }: PictureSourceProps) {
  return (
    <>
      <Flex gap="5" mb="3" align="center" wrap="wrap" fontSize="14px">
        <FilePick label={label} text="open a picture, PNG or JPEG" accept="image/png,image/jpeg" onFile={onFile} />
        {simulators && <SimulatedMicroscope busy={busy} onTake={onTake} />}
        {tookMs !== undefined && <Text color="quiet">looked over in {(tookMs / 1000).toFixed(1)} s</Text>}
      </Flex>
      {problem && <ProblemNote text={problem} />}
    </>
  );
}

function SimulatedMicroscope({ busy, onTake }: { busy: boolean; onTake: (specimen: Specimen) => void }) {
  const [specimen, setSpecimen] = useState<Specimen>('worn');
  return (
    <Flex gap="2" align="center">
      <SelectBox
        label="Specimen under the simulated microscope"
        value={specimen}
        options={SPECIMENS.map((s) => [s, `${s} part`] as const)}
        onChange={(s) => setSpecimen(s as Specimen)}
      />
      <PlainButton type="button" disabled={busy} onClick={() => onTake(specimen)}>
        Take from the simulated microscope
      </PlainButton>
    </Flex>
  );
}

/** Files that the simulated microscope made: they say so wherever they are kept. */
const simulated = new WeakSet<File>();

export function simulatedPicture(file: File): File {
  simulated.add(file);
  return file;
}

/** The form's entry that says where a picture comes from; nothing for a file of the person's own. */
export function addOrigin(form: FormData, picture: File): void {
  if (simulated.has(picture)) form.set('origin', JSON.stringify({ kind: 'simulated', by: 'simulated microscope' }));
}

/** A kept picture as a file again. */
export async function fetched(src: string): Promise<File> {
  const blob = await (await fetch(src)).blob();
  return new File([blob], 'kept picture', { type: blob.type });
}
