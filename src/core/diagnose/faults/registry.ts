import type { PartRef } from '../../identities';
import { partByRef, type Board, type Part, type PartKind } from '../../board';
import type { Fault } from './fault';
import type { PartKindDefinition, PartWork } from './part-kind';
import { batteryConnector } from './part-kinds/battery-connector';
import { capacitor } from './part-kinds/capacitor';
import { chargeController } from './part-kinds/charge-controller';
import { clampDiode } from './part-kinds/clamp-diode';
import { coil } from './part-kinds/coil';
import { connector } from './part-kinds/connector';
import { converter } from './part-kinds/converter';
import { crystal } from './part-kinds/crystal';
import { esdArray } from './part-kinds/esd-array';
import { flash } from './part-kinds/flash';
import { fuse } from './part-kinds/fuse';
import { lineFilter } from './part-kinds/line-filter';
import { mosfet } from './part-kinds/mosfet';
import { mux } from './part-kinds/mux';
import { portController } from './part-kinds/port-controller';
import { processor } from './part-kinds/processor';
import { resistor } from './part-kinds/resistor';
import { sensorHub } from './part-kinds/sensor-hub';

/** Every kind of part that a board can hold. */
export const PART_KIND_DEFINITIONS: Readonly<Record<PartKind, PartKindDefinition>> = {
  ...{ portController, chargeController, mux, flash, converter, processor, sensorHub },
  ...{ connector, batteryConnector, fuse, lineFilter, esdArray, clampDiode, mosfet },
  ...{ coil, capacitor, resistor, crystal },
};

/** Every single fault of one part. */
export const faultsOfPart = (board: Board, part: Part): readonly Fault[] =>
  PART_KIND_DEFINITIONS[part.kind].faults(board, part);

/** Work on a part that the board does not name is taken as on a chip of middling size. Engineering estimate. */
const UNKNOWN_PART_WORK: PartWork = { minutes: 14, price: 0, harm: 0 };

/** What replacing a part costs. */
export function partWork(board: Board, ref: PartRef): PartWork {
  const part = partByRef(board, ref);
  return part ? PART_KIND_DEFINITIONS[part.kind].work : UNKNOWN_PART_WORK;
}
