'use client';

import { useState } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import { formatBytes } from '@/core/units';
import { FilePick, Headline, ViewLinks } from '@/ui';
import { CompareWork } from './compare-work';
import { MapWork } from './map-work';
import type { ImageLibrary } from './queries';
import type { ImageSource } from './use-seen';

const NO_FAMILY = 'none';

/** Images without a job: the kept ones of a family, or files of one's own, compared and mapped. */
export function ImagesSheet({
  library: { families, images },
  family: asked,
  view,
}: {
  library: ImageLibrary;
  family?: string;
  view: 'compare' | 'map';
}) {
  const family = asked === NO_FAMILY ? undefined : (families.find((f) => f.id === asked) ?? families[0]);
  const [file, setFile] = useState<File>();
  const id = family?.id ?? NO_FAMILY;
  const own = images.filter((i) => i.familyId === (family?.id ?? null));
  const initial = startWith(file, own);
  const key = `${id} ${view} ${file?.name} ${file?.lastModified}`;
  return (
    <>
      <ViewLinks
        label="Families"
        views={[
          ...families.map((f) => ({
            id: f.id,
            name: `${f.name}, ${formatBytes(f.sizeBytes)}`,
            href: `?family=${f.id}&view=${view}`,
          })),
          { id: NO_FAMILY, name: 'no family', href: `?family=${NO_FAMILY}&view=${view}` },
        ]}
        current={id}
      />
      <Flex gap="5" align="baseline" fontSize="14px" wrap="wrap">
        <ViewLinks
          label="Views of the images"
          views={[
            { id: 'compare', name: 'Compare', href: `?family=${id}&view=compare` },
            { id: 'map', name: 'The map', href: `?family=${id}&view=map` },
          ]}
          current={view}
        >
          <FilePick
            label="Look at a file"
            text={file ? `looking at ${file.name}` : 'look at a file'}
            onFile={setFile}
          />
          <Text color="quiet">
            A file stays in this browser; raw, Intel HEX and S-records are told by their content.
          </Text>
        </ViewLinks>
      </Flex>
      {initial.length === 0 ? (
        <Headline title="No image yet" aside="up to 64 MiB">
          Look at a file, or keep dumps on a job: they are listed here with their family.
        </Headline>
      ) : view === 'map' ? (
        <MapWork key={key} family={family} library={own} initial={initial.slice(0, 1)} />
      ) : (
        <CompareWork key={key} family={family} library={own} initial={initial} />
      )}
    </>
  );
}

const startWith = (file: File | undefined, own: ImageLibrary['images']): ImageSource[] =>
  file ? [{ name: file.name, from: file }] : own.slice(0, 2).map(({ name, sha256 }) => ({ name, from: sha256 }));
