import type { PartRef } from '../identities';
import { partByRef, shieldOver, type Board, type Part, type Slot } from '../board';
import { ALLOYS } from '../joints';
import { formatNominalOhm } from '../units';
import { BAKE_TEMPS_C, bakeH, moistureState, type MoistureMark } from './moisture';
import { memorySchool, type PartFamily, type PartType } from './profile';
import type { Attribute, RuleId } from './rules';
import { STRAP_TOTAL_OHM, decodeStrap, designOneResistor, designStrap, type StrapDesign } from './straps';

/** A place on a board and what is known of the job there. */
export interface Need {
  readonly board: Board;
  readonly slot: Slot;
  /** The type the place was built with. */
  readonly built?: PartType;
  readonly family?: PartFamily;
  /** What the image checks said; undefined: not read. */
  readonly imageSound?: boolean;
}

/** One chip, or one of a lot, that could go there. */
export interface Candidate {
  readonly type: PartType;
  /** The board and position it came from; none for new ones. */
  readonly from?: { readonly boardId: string; readonly position?: string };
  /** Its paired memory comes along. */
  readonly withPartner?: boolean;
  /** History of its moisture, in hours; undefined: nobody knows; empty: sealed. */
  readonly marks?: readonly MoistureMark[];
}

export interface Surroundings {
  /** Resistances that a strap may be made of, ohm. */
  readonly strapValues: readonly number[];
  readonly strapTolerance: number;
  readonly nowH: number;
}

/** Which rule applies, with what it compared. */
export interface Relation {
  readonly rule: RuleId;
  readonly facts: Readonly<Record<string, string>>;
  readonly strap?: { readonly design: StrapDesign; readonly changes: readonly StrapChange[] };
}

export interface StrapChange {
  readonly ref: PartRef;
  readonly fromOhm: number;
  readonly toOhm: number;
}

/** Peak over the liquidus that a joint needs to wet well, °C. Common practice, no source: 15 to 25. */
const WETTING_ABOVE_LIQUIDUS_C = 15;

const unknown = (what: string): Relation => ({ rule: 'unknown', facts: { what } });
const relation = (rule: RuleId, facts: Readonly<Record<string, string>> = {}): Relation => ({ rule, facts });

type Relate = (need: Need, candidate: Candidate, around: Surroundings, part: Part) => Relation;

/** How a candidate relates to a place, attribute by attribute. */
export const RELATE: Readonly<Record<Attribute, Relate>> = {
  package: (_, { type }, __, part) =>
    type.package === undefined
      ? unknown('its package')
      : relation(type.package === part.package ? 'package/same' : 'package/other', {
          package: type.package,
          wanted: part.package,
        }),

  pins: ({ built }, { type }, _, part) => {
    if (!type.pins) return unknown('its pin map');
    if (!built?.pins) return unknown('the pin map of the type as built');
    const differ = Object.keys(built.pins).filter((pin) => built.pins![pin] !== type.pins![pin]);
    if (differ.length === 0) return relation('pins/same');
    const used = differ.filter((pin) => part.pins[pin] !== undefined);
    if (used.length === 0) return relation('pins/superset', { differ: differ.join(', ') });
    const words = used.map((pin) => `${pin} is ${type.pins![pin] ?? 'not there'}, not ${built.pins![pin]}`);
    return relation('pins/differ', { differ: words.slice(0, 3).join('; ') });
  },

  supply: ({ board, slot }, { type }) => {
    if (slot.supply === undefined) return relation('supply/none');
    const rail = board.rails.find((r) => r.id === slot.supply);
    if (!type.supplyV) return unknown('its supply range');
    if (!rail || rail.expect.kind !== 'fixed') return unknown('the supply at this place');
    const { volts } = rail.expect;
    const [low, high] = type.supplyV;
    const facts = { supply: String(volts), range: `${low} to ${high}` };
    return relation(volts >= low && volts <= high ? 'supply/inside' : 'supply/outside', facts);
  },

  revision: ({ built }, { type }) => {
    if (!built) return unknown('the type as built');
    const facts = {
      revision: type.revision,
      built: built.revision,
      family: type.family,
      builtFamily: built.family,
    };
    if (type.id === built.id) return relation('revision/same', facts);
    if (type.family !== built.family) return relation('revision/family', facts);
    return relation(type.order > built.order ? 'revision/later' : 'revision/earlier', facts);
  },

  position: relatePosition,

  image: ({ board, slot, imageSound, family }, { type }) => {
    if (!slot.image || !board.imageFamily) return relation('image/none');
    if (type.imageFamily === undefined) return unknown('the image it loads');
    if (type.imageFamily === null) return relation('image/none');
    const facts = { image: type.imageFamily, wanted: board.imageFamily, memory: slot.image };
    if (type.imageFamily !== board.imageFamily) return relation('image/other', facts);
    const { school } = memorySchool(family);
    if (type.partner) return relation('image/same', facts);
    if (imageSound === false && school !== 'never') return relation('image/damaged', facts);
    return relation(school === 'always' ? 'image/rewritten' : 'image/same', facts);
  },

  partner: ({ slot }, { type, withPartner }) => {
    if (type.partner === undefined) return unknown('whether it is paired with a memory');
    if (type.partner === null) return relation('partner/free');
    const facts = { partner: type.partner, memory: slot.image ?? '' };
    if (!slot.image) return relation('partner/noPlace', facts);
    return relation(withPartner ? 'partner/comes' : 'partner/missing', facts);
  },

  height: ({ board }, { type }, _, part) => {
    if (type.thicknessMm === undefined) return unknown('how tall it is');
    const room = board.packages[part.package].heightMm;
    const shield = shieldOver(board, part);
    const facts = { height: String(type.thicknessMm), room: String(room), shield: shield?.id ?? '' };
    if (type.thicknessMm <= room) return relation('height/low', facts);
    return relation(shield ? 'height/shield' : 'height/free', facts);
  },

  heat: ({ board }, { type }) => {
    if (type.bodyLimitC === undefined) return unknown('what its body bears');
    const peakC = ALLOYS[board.alloy].liquidusC + WETTING_ABOVE_LIQUIDUS_C;
    const facts = { limit: String(type.bodyLimitC), alloy: board.alloy, peak: String(peakC) };
    return relation(type.bodyLimitC >= peakC ? 'heat/bears' : 'heat/low', facts);
  },

  moisture: (_, { type, marks }, { nowH }) => {
    if (!type.moisture) return unknown('its moisture level');
    const state = moistureState(type.moisture, marks, nowH);
    if (state.bake) {
      const why = state.unknown ? 'Nobody knows how long it lay open' : 'Its floor life is over';
      const bakeWords = BAKE_TEMPS_C.map((tempC) => {
        const hours = type.thicknessMm === undefined ? undefined : bakeH(type.moisture!, type.thicknessMm, tempC);
        return hours === undefined ? undefined : `${hoursWords(hours)} at ${tempC} °C`;
      }).filter(Boolean);
      return relation('moisture/bake', {
        why,
        bake: bakeWords.length > 0 ? bakeWords.join(', or ') : 'as the bag’s label says',
      });
    }
    return relation('moisture/dry', { left: Number.isFinite(state.leftH) ? hoursWords(state.leftH) : 'All' });
  },
};

/** Hours in the words of a bench: days from two days on. */
export const hoursWords = (hours: number): string =>
  hours >= 48 ? `${Math.floor(hours / 24)} days` : `${Math.floor(hours)} h`;

function relatePosition(need: Need, { type, from }: Candidate, around: Surroundings): Relation {
  const { board, slot, imageSound, family } = need;
  const { position } = slot;
  if (position === undefined) return relation('position/none');
  if (type.position === undefined) return unknown('where its position lives');
  switch (type.position) {
    case 'none':
      return relation('position/none');
    case 'fused': {
      if (!from?.position) return unknown('which position it is fused as');
      const same = from.boardId === board.id && from.position === position;
      const facts = { position, board: board.name, from: `${from.position} of ${from.boardId}` };
      return relation(same ? 'position/fusedSame' : 'position/fusedOther', facts);
    }
    case 'image': {
      const { school } = memorySchool(family);
      const movesAway = Boolean(type.partner) && !(from?.boardId === board.id && from.position === position);
      const written = movesAway || (imageSound === false && school !== 'never') || school === 'always';
      const facts = { position, memory: slot.image ?? 'its memory' };
      return relation(written ? 'position/imageWritten' : 'position/imageKeeps', facts);
    }
    case 'straps':
      return relateStraps(need, type, around);
  }
}

function relateStraps({ board, slot }: Need, type: PartType, around: Surroundings): Relation {
  const position = slot.position!;
  if (!type.strapCode) return unknown('its strap code');
  const top = slot.straps && partByRef(board, slot.straps.top);
  const bottom = slot.straps && partByRef(board, slot.straps.bottom);
  if (!top?.ohm || !bottom?.ohm) return unknown('the straps at this place');
  const { bins, positions } = type.strapCode;
  const wanted = positions[position];
  if (wanted === undefined) return relation('position/noCode', { position });
  const tolerance = around.strapTolerance;
  const read = decodeStrap({ topOhm: top.ohm, bottomOhm: bottom.ohm, tolerance }, bins);
  const facts = {
    straps: `${top.ref} and ${bottom.ref}`,
    share: `${(100 * read.share).toFixed(0)} %`,
    bin: String(read.bin),
    bins: String(bins),
    position,
    wanted: String(wanted),
  };
  if (read.bin === wanted && read.sure) return relation('position/strapsRight', facts);
  const wish = {
    bins,
    bin: wanted,
    tolerance,
    values: around.strapValues,
    totalOhm: STRAP_TOTAL_OHM,
    now: { topOhm: top.ohm, bottomOhm: bottom.ohm },
  };
  const one = designOneResistor(wish);
  const design = one.ok ? one : designStrap(wish);
  if (!design.ok) return relation('position/strapsHopeless', facts);
  const changes = [
    { ref: top.ref, fromOhm: top.ohm, toOhm: design.value.topOhm },
    { ref: bottom.ref, fromOhm: bottom.ohm, toOhm: design.value.bottomOhm },
  ].filter((c) => c.fromOhm !== c.toOhm);
  const rule = read.bin === wanted ? 'position/strapsMarginal' : 'position/strapsWrong';
  return { rule, facts, strap: { design: design.value, changes } };
}

/** A strap change as a sentence. */
export const strapWords = ({ ref, fromOhm, toOhm }: StrapChange): string =>
  `Change strap ${ref} from ${formatNominalOhm(fromOhm)} to ${formatNominalOhm(toOhm)}`;
