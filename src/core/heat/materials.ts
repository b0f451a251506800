import type { Board } from '../board';
import { airConductivity } from './air';
import { STEFAN_BOLTZMANN } from './constants';

/** Copper and glass-epoxy, W/m·K. Source: handbook values; the mixture rule is standard (parallel in the plane). */
export const COPPER_K = 385;
export const EPOXY_K = 0.3;

/** Through the board: epoxy and copper in series, raised by vias. Engineering estimate within 0.3–0.5. */
export const BOARD_K_THROUGH = 0.4;

/** Volumetric heat capacity of a board with its copper, J/m³K (2.0–2.5e6; engineering estimate). */
export const BOARD_HEAT_CAPACITY = 2.3e6;

/** Mould compound: conductivity W/m·K and volumetric heat capacity J/m³K. Engineering estimate, prototype value. */
export const MOULD_K = 0.8;
export const MOULD_HEAT_CAPACITY = 1.7e6;

/** Solder share of the footprint and its conductivity, air or underfill between; engineering estimates. */
const SOLDER_SHARE = 0.2;
const SOLDER_K = 55;
const UNDERFILL_K = 0.4;
const AIR_GAP_K = 0.03;

/** Standoff of the joint layer, m: leadless parts sit on 50 µm of solder, balls on a fraction of a millimetre. */
const LEADLESS_STANDOFF_M = 50e-6;

/**
 * In-plane conductivity of a layer stack by the rule of mixtures, W/m·K: Σ kᵢ tᵢ cᵢ / t.
 * @param coverage share of copper in every layer, where a place differs from what the layers say.
 */
export function boardInPlaneK(board: Pick<Board, 'layers' | 'thicknessMm'>, coverage?: number): number {
  const copperM = board.layers.reduce((s, l) => s + l.copperUm * 1e-6 * (coverage ?? l.coverage), 0);
  const share = Math.min(1, copperM / (board.thicknessMm / 1000));
  return COPPER_K * share + EPOXY_K * (1 - share);
}

/** Conductance per area of the layer between part and board, W/m²K. */
export function jointLayerConductance(options: { ballMm?: number; underfilled: boolean }): number {
  const standoffM = standoffOf(options.ballMm);
  const between = options.underfilled ? UNDERFILL_K : AIR_GAP_K;
  return (SOLDER_SHARE * SOLDER_K + (1 - SOLDER_SHARE) * between) / standoffM;
}

/** Boards and parts facing one another across a gap, both of emissivity 0.9, at rework temperature: 4·σ·T³/(2/ε − 1), W/m²K. */
const ACROSS_GAP = (4 * STEFAN_BOLTZMANN * 423 ** 3) / (2 / 0.9 - 1);
const GAP_AIR_C = 150;
/** Air is never thinner than this under another board, mm: what stands there does not quite touch. Engineering estimate. */
const LEAST_AIR_MM = 0.05;

/** Conductance per area between two boards, W/m²K: air and radiation, over a part of a height where one stands there. */
export function gapConductance(gapMm: number, partMm = 0): number {
  const airMm = Math.max(LEAST_AIR_MM, gapMm - partMm);
  const open = airConductivity(GAP_AIR_C) / (airMm / 1000) + ACROSS_GAP;
  return 1 / (1 / open + partMm / 1000 / MOULD_K);
}

const standoffOf = (ballMm: number | undefined): number => (ballMm ? (ballMm / 1000) * 0.65 : LEADLESS_STANDOFF_M);

/** Solder under a part, as a layer over its whole footprint, m. */
export const solderThicknessM = (ballMm: number | undefined): number => SOLDER_SHARE * standoffOf(ballMm);
