import type { JobState } from '../log';
import type { StageId } from './stages';

export interface Caution {
  readonly title: string;
  readonly text: string;
}

const LAW = 'Local rules and the maker’s safety instructions come first.';

/** The caution that belongs to a stage, in the state the job is in. Source: common practice. */
export function cautionFor(stage: StageId, state: JobState): Caution {
  const swollen = state.story?.pack === 'swollen' && !state.packOut;
  if (swollen) {
    return {
      title: 'Swollen pack.',
      text: 'Set the job up so that the pack goes into the fire-safe box outdoors before anything else. No charger, no heat, no prying with metal.',
    };
  }
  switch (stage) {
    case 'arrive':
      return {
        title: 'Consent first.',
        text: `Only work on what its owner agreed to. Cover what the screen shows of others. ${LAW}`,
      };
    case 'outside':
      return {
        title: 'Look before power.',
        text: 'A doubtful port is not powered: crossed pins, corrosion, a loose shell. Mains chargers are never opened.',
      };
    case 'probe':
      return state.packOut
        ? { title: 'Pack is out.', text: 'No supply on the board while measuring ohms. Strap on your wrist.' }
        : {
            title: 'Pack unplugged?',
            text: 'No entry says so yet: type “pack out” once it is. No supply on the board while measuring ohms.',
          };
    case 'decide':
      return {
        title: 'Data before cure.',
        text: 'What must be saved is saved before a risky step. Hours already spent do not count.',
      };
    case 'heat':
      return {
        title: 'Fumes and hot air.',
        text: 'Extract at the board, no face over it. Pack out of the housing, nothing flammable near. Nudge before you lift: a pull too early takes pads.',
      };
    case 'balls':
      return {
        title: 'Lead and solvent.',
        text: 'Clean only a cooled board: solvent is flammable. Wash hands after leaded solder, no food here, waste by local rules.',
      };
    case 'image':
      return {
        title: 'This unit only.',
        text: 'Images are copied for the repair of this unit. Nothing here opens a lock or an ownership check. Local law on data comes first.',
      };
    case 'prove':
      return {
        title: 'Limit before power.',
        text: 'Set the supply’s current limit before connecting. Measure the old shorts again before any power.',
      };
    case 'close':
      return {
        title: 'Tell the cause.',
        text: 'The owner hears the likely cause, or the repair comes back. Private data stays out of the report.',
      };
  }
}
