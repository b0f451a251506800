import { eyesPicture, flyAir } from '@/core/drill';
import { coloured } from '@/devices/microscope';
import type { ExerciseReply, ExerciseRequest } from './protocol';

const post = (reply: ExerciseReply): void => self.postMessage(reply);

self.onmessage = ({ data }: MessageEvent<ExerciseRequest>): void => {
  try {
    post(answerTo(data));
  } catch (error) {
    post({ kind: 'problem', message: `The exercise stopped: ${(error as Error).message}` });
  }
};

function answerTo(request: ExerciseRequest): ExerciseReply {
  if (request.ask === 'fly') {
    const { board, drill, flight, untilS } = request;
    return { kind: 'flown', curves: flyAir(board, drill, flight, untilS) };
  }
  const { picture, toPicture, pattern } = eyesPicture(request.drill, request.picture);
  const { width, height } = picture;
  return { kind: 'picture', picture: { width, height, rgba: coloured(picture), toPicture, pattern } };
}
