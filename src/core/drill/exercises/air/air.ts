import { defineExercise, type ExerciseResult } from '../definition';
import { airDrillSchema, flightSchema, type AirDrill, type Flight } from './flight';
import { reviewFlight, type AirReview } from './review';

export const airExercise = defineExercise<AirDrill, Flight, AirReview & ExerciseResult & { readonly kind: 'air' }>({
  kind: 'air',
  title: 'Hot air, by hand',
  about:
    'Dial, flow and height in real time; a nudge says whether it swims. Station and board are not quite what they say.',
  spec: airDrillSchema,
  done: flightSchema,
  course: ({ id, device, slots }) =>
    slots.slice(0, 3).map(({ ref }, i) => ({
      ...{ kind: 'air', format: 1, name: `Lift ${ref}, ${device}` },
      ...{ boardId: id, ref, seed: 7300 + i, grade: 2 + 2 * i },
    })),
  review: (board, spec, done) => {
    const review = reviewFlight(board, spec, done);
    const end = review.liftS === undefined ? 'neverLifted' : review.score > 0 ? 'lifted' : 'pulledCold';
    return { kind: 'air', ...review, end };
  },
});
