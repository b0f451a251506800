import type { Board, Part, Port } from '../../../board';
import { definePartKind } from '../part-kind';
import { faultOf, type Fault } from '../fault';
import { bridge, dead, netsOf } from '../modes';

const WEIGHT = { dead: 0.7, open: 2, bridge: 0.4, dirty: 0.8 };

/** Pins of a port that matter for power and talk can open; other connectors fail as a whole. */
export const connector = definePartKind({
  kind: 'connector',
  work: { minutes: 25, price: 4, harm: 0.03 },
  story: { liquid: 4, fall: 2, earlierRepair: 2 },
  faults(board, part) {
    const port = board.ports.find((p) => p.id === part.ref);
    if (!port) return [dead(part, WEIGHT.dead)];
    return [...openContacts(board, part), ...troubleAtCc(board, part, port)];
  },
});

function troubleAtCc(board: Board, part: Part, port: Port): Fault[] {
  const bus = board.rails.find((r) => r.id === port.vbusRail)!.net;
  return port.sides.flatMap(({ side, ccNet }) => [
    faultOf(
      part,
      `dirty/${ccNet}`,
      `contact ${ccNet} dirty`,
      WEIGHT.dirty,
      [{ kind: 'dirty', ref: part.ref, net: ccNet }],
      { kind: 'contacts', ref: part.ref },
    ),
    faultOf(part, `bridge/${ccNet}`, `${ccNet} bridged to ${bus} beside it`, WEIGHT.bridge, [
      bridge(part, bus, ccNet),
      { kind: 'ccDead', ref: port.controller, side },
    ]),
  ]);
}

function openContacts(board: Board, part: Part): Fault[] {
  const vital = netsOf(board, part).filter((net) => board.nets[net].diodeV !== undefined);
  return vital.flatMap((net) => {
    const pins = Object.keys(part.pins).filter((pin) => part.pins[pin] === net);
    // One contact of several that carry power is not missed; of two that carry data, the plug uses one at a time.
    const whole = pins.length === 1 || board.nets[net].role === 'power';
    const { ref } = part;
    if (whole)
      return [faultOf(part, `pin/${net}`, `pin ${net} open or bent`, WEIGHT.open, [{ kind: 'pinOpen', ref, net }])];
    return pins.map((pin) =>
      faultOf(part, `pin/${net}/${pin}`, `pin ${pin} ${net} open or bent`, WEIGHT.open / pins.length, [
        { kind: 'pinOpen', ref, net, pin },
      ]),
    );
  });
}
