'use client';

import { useState } from 'react';
import { Flex, Text } from '@chakra-ui/react';
import type { Side } from '@/core/board';
import { FilePick, PlainButton, SidebarPart } from '@/ui';
import type { EditorPhoto } from './editing';
import { CameraPart } from './camera-part';

const SIDES: readonly Side[] = ['front', 'back'];

/** The photographs under the drawing: from a file, or straight from a camera. */
export function PhotoPart({
  photos,
  onFile,
}: {
  photos: readonly EditorPhoto[];
  onFile: (side: Side, file: File) => void;
}) {
  const [camera, setCamera] = useState<Side>();
  return (
    <SidebarPart title="Photographs">
      {SIDES.map((side) => {
        const photo = photos.find((p) => p.side === side);
        return (
          <Flex key={side} gap="3" align="baseline" fontSize="14px" mb="1.5" wrap="wrap">
            <Text as="span" fontWeight="600" w="3.2em">
              {side}
            </Text>
            <FilePick
              label={`Photograph of the ${side}`}
              text={photo ? 'another' : 'file'}
              accept="image/*"
              onFile={(file) => onFile(side, file)}
            />
            <PlainButton type="button" py="0" onClick={() => setCamera(camera === side ? undefined : side)}>
              camera
            </PlainButton>
            {photo && (
              <Text as="span" color="quiet" fontFamily="mono">
                ± {photo.doubtMm.toFixed(2)} mm
              </Text>
            )}
          </Flex>
        );
      })}
      {camera && (
        <CameraPart
          side={camera}
          onStill={(file) => {
            onFile(camera, file);
            setCamera(undefined);
          }}
        />
      )}
    </SidebarPart>
  );
}
