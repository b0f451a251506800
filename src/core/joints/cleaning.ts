import { z } from 'zod';
import type { AlloyName } from './alloys';

/** How this bench prepares sites. Schools differ; the defaults are the house's. */
export const sitePracticeSchema = z.object({
  braid: z.enum(['above', 'never']).default('above').describe('braid above the pitch below, or never'),
  braidFromPitchMm: z.number().min(0.2).max(2).default(0.5).describe('below it pads are levelled with the iron'),
  balls: z
    .enum(['auto', 'paste', 'spheres'])
    .default('auto')
    .describe('auto: paste for coarse, spheres when the spread check fails'),
  flux: z.enum(['sparing', 'generous']).default('sparing'),
  coplanarityMm: z.number().min(0.02).max(0.4).nullable().default(null).describe('null: by the pitch'),
});
export type SitePractice = z.infer<typeof sitePracticeSchema>;
export const DEFAULT_SITE_PRACTICE: SitePractice = sitePracticeSchema.parse({});

export interface CleaningStep {
  readonly what: string;
  readonly why: string;
}

/** Iron settings named by practitioners, °C: on pads, and near plastic. Common practice, no source. */
const IRON_ON_PADS_C = 380;
const IRON_NEAR_PLASTIC_C = 300;
/** Plastic so near the pads decides the iron's setting, mm. Engineering estimate. */
export const PLASTIC_NEAR_MM = 4;

export interface CleaningSite {
  readonly pitchMm: number;
  readonly alloy: AlloyName;
  /** Plastic near enough to suffer from the iron. */
  readonly plasticNear: readonly string[];
  /** A residue that does not belong there, in words, where one was seen. */
  readonly residue?: string;
}

/** The way from bare, uneven pads to level ones, by the bench's school. */
export function cleaningPlan(site: CleaningSite, practice: SitePractice): CleaningStep[] {
  const braid = practice.braid === 'above' && site.pitchMm >= practice.braidFromPitchMm;
  const ironC = site.plasticNear.length > 0 ? IRON_NEAR_PLASTIC_C : IRON_ON_PADS_C;
  const leadFree = site.alloy !== 'Sn63Pb37';
  return [
    {
      what: practice.flux === 'sparing' ? 'A thin film of flux on every pad' : 'Flux over the whole site',
      why:
        practice.flux === 'sparing'
          ? 'Too little lets pads oxidise; too much floats the part and makes bubbles.'
          : 'Pads stay bright; wipe the rest off before the part goes down, or it floats.',
    },
    ...(site.residue
      ? [
          {
            what: 'All of the old solder off, then fresh solder on and off once more',
            why: `${site.residue} What stays behind decides where the new joint melts.`,
          },
        ]
      : []),
    {
      what: `Iron at ${ironC} °C with fresh leaded solder over the pads`,
      why:
        (leadFree ? 'Leaded solder lowers the melting range of what is on them. ' : '') +
        (site.plasticNear.length > 0
          ? `${site.plasticNear.join(', ')} near: no more than ${IRON_NEAR_PLASTIC_C} °C, and never against the plastic.`
          : 'Drag, do not press: a pad is held by glue that heat softens.'),
    },
    braid
      ? {
          what: 'Braid with flux and heat, laid on and lifted off hot',
          why: `Allowed at ${site.pitchMm} mm pitch. Braid that sticks or cools pulls the pad.`,
        }
      : {
          what: 'Level with the iron alone, no braid',
          why:
            practice.braid === 'never'
              ? 'House rule: no braid on pads.'
              : `Below ${practice.braidFromPitchMm} mm pitch braid pulls pads when it sticks or cools.`,
        },
    {
      what: 'Let it cool, then clean with solvent and look under the microscope',
      why: 'Solvent is flammable: never on a hot board. Look for lifted, dull and uneven pads.',
    },
  ];
}
