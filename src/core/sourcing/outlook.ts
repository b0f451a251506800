import type { Route } from './routes';

/** The repair that a chip is for: taking the old one off and putting a new one on. */
export interface PlannedRepair {
  /** Chance that this part is the fault. */
  readonly cureChance: number;
  readonly minutes: number;
  /** Chance that the board is harmed for good. */
  readonly harm: number;
}

/** What a route is expected to bring, beside stopping the job, which brings and costs nothing from here. */
export interface Outlook {
  /** Chance that the device works afterwards. */
  readonly chance: number;
  /** Chip, donor and all bench minutes, in the shop's money. */
  readonly cost: number;
  /** Least worth of the device at which the route pays. */
  readonly breakEven: number;
  /** Worth times chance, less the cost; none where the worth is not known. */
  readonly gain?: number;
}

/** Chances multiply: the part is the fault, the chip works there, and the board survives the work. */
export function outlookOf(
  { fit, cost }: Pick<Route, 'fit' | 'cost'>,
  repair: PlannedRepair,
  hourPrice: number,
  worth?: number,
): Outlook {
  const chance = repair.cureChance * fit.success.mean * (1 - repair.harm);
  const whole = cost + (repair.minutes * hourPrice) / 60;
  return {
    chance,
    cost: whole,
    breakEven: whole / chance,
    gain: worth === undefined ? undefined : worth * chance - whole,
  };
}
