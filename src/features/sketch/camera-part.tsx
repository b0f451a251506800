'use client';

import { useEffect, useRef, useState } from 'react';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { Side } from '@/core/board';
import { MainButton, ProblemNote, SelectBox } from '@/ui';

/** Cameras are asked for the finest picture they have, px. */
const WISHED_PX = { width: 4096, height: 3072 };

/** What a browser says when there is no picture, in a sentence each. Source: Media Capture and Streams, exceptions of getUserMedia. */
function problemOf(error: unknown): string {
  switch (error instanceof DOMException ? error.name : '') {
    case 'NotAllowedError':
      return 'The browser does not let this page use the camera. Allow it in the page’s settings, or take a file.';
    case 'NotFoundError':
    case 'OverconstrainedError':
      return 'No camera is connected. Connect one and open this again, or take a file.';
    case 'NotReadableError':
      return 'Another program holds the camera. Close it there and open this again.';
    default:
      return `The camera gave no picture: ${error instanceof Error ? error.message : 'no reason was given'}.`;
  }
}

/** The live picture of a camera, and a still from it at full size. */
export function CameraPart({ side, onStill }: { side: Side; onStill: (file: File) => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const [cameras, setCameras] = useState<readonly (readonly [string, string])[]>([]);
  const [camera, setCamera] = useState('');
  const [problem, setProblem] = useState<string>();
  const [live, setLive] = useState(false);

  useEffect(() => {
    let stream: MediaStream | undefined;
    let gone = false;
    const open = async (): Promise<void> => {
      if (!navigator.mediaDevices) throw new Error('this browser has no camera for pages that are not on this machine');
      const wished = { width: { ideal: WISHED_PX.width }, height: { ideal: WISHED_PX.height } };
      stream = await navigator.mediaDevices.getUserMedia({
        video: camera ? { ...wished, deviceId: { exact: camera } } : { ...wished, facingMode: 'environment' },
      });
      if (gone) return stream.getTracks().forEach((t) => t.stop());
      // A camera that is unplugged ends its track.
      stream.getVideoTracks()[0].onended = () => {
        setLive(false);
        setProblem('The camera is gone: its line was lost. Connect it and open this again.');
      };
      video.current!.srcObject = stream;
      await video.current!.play();
      setLive(true);
      const all = await navigator.mediaDevices.enumerateDevices();
      setCameras(
        all.filter((d) => d.kind === 'videoinput').map((d, i) => [d.deviceId, d.label || `camera ${i + 1}`] as const),
      );
    };
    open().catch((error: unknown) => !gone && setProblem(problemOf(error)));
    return () => {
      gone = true;
      stream?.getTracks().forEach((t) => t.stop());
    };
  }, [camera]);

  async function take(): Promise<void> {
    const { videoWidth, videoHeight } = video.current!;
    const sheet = new OffscreenCanvas(videoWidth, videoHeight);
    sheet.getContext('2d')!.drawImage(video.current!, 0, 0);
    const still = await sheet.convertToBlob({ type: 'image/png' });
    onStill(new File([still], `${side} from the camera.png`, { type: 'image/png' }));
  }

  return (
    <Box mt="2">
      {problem && <ProblemNote text={problem} />}
      <chakra.video ref={video} w="100%" bg="mat" muted playsInline aria-label={`Live picture for the ${side}`} />
      <Flex gap="2" mt="2" align="center" wrap="wrap">
        <MainButton type="button" disabled={!live} onClick={() => void take()}>
          Take it
        </MainButton>
        {cameras.length > 1 && (
          <SelectBox label="Camera" value={camera || cameras[0][0]} options={cameras} onChange={setCamera} />
        )}
        {!live && !problem && (
          <Text as="span" fontSize="13px" color="quiet">
            Waiting for the camera …
          </Text>
        )}
      </Flex>
    </Box>
  );
}
