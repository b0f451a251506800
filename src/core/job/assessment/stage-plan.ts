import type { Board } from '../../board';
import { supplyLabel } from '../../stock';
import type { BodyOf, JobState } from '../log';
import type { StageId } from './stages';

/** Which stage does an action; the proof has its own words. */
const STAGE_OF: Readonly<Record<BodyOf<'route'>['actions'][number]['kind'], 'balls' | 'image' | 'prove'>> = {
  bake: 'balls',
  strap: 'balls',
  leaveOff: 'balls',
  partner: 'image',
  writePosition: 'image',
  writeImage: 'image',
  verify: 'prove',
};

/** What the chosen chip asks of the stages to come: which parts come off, what to do with the image, what to prove. */
export function stagePlan(board: Board, { route, replaced }: JobState): Partial<Record<StageId, string>> {
  if (!route) return {};
  const { ref, typeId, supply, off, actions, prove } = route;
  const of = (stage: string): string[] => actions.filter((a) => STAGE_OF[a.kind] === stage).map((a) => a.words);
  const functions = board.functions.filter((f) => prove.includes(f.id)).map((f) => f.what);
  const image = of('image').join('. ') || undefined;
  const shown = functions.length > 0 ? `Shows whether ${ref} works: ${functions.join(', ')}` : undefined;
  if (replaced.includes(ref)) return { ...(image && { image }), prove: shown };
  const goesOn = typeId === 'none' ? [] : [`Goes on: ${typeId}, ${supplyLabel(supply)}`];
  return {
    heat: `Comes off${typeId === 'none' ? '' : ` for ${typeId}`}: ${off.join(', ')}`,
    balls: [...goesOn, ...of('balls')].join('. '),
    ...(image && { image }),
    prove: shown,
  };
}
