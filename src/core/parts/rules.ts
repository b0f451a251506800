/** What a slot is compared by, in the order of the columns. */
export const ATTRIBUTES = [
  'package',
  'pins',
  'supply',
  'revision',
  'position',
  'image',
  'partner',
  'height',
  'heat',
  'moisture',
] as const;
export type Attribute = (typeof ATTRIBUTES)[number];

export const ATTRIBUTE_WORDS: Readonly<Record<Attribute, string>> = {
  package: 'Package',
  pins: 'Pins',
  supply: 'Supply',
  revision: 'Revision',
  position: 'Position',
  image: 'Image',
  partner: 'Partner',
  height: 'Height',
  heat: 'Heat',
  moisture: 'Moisture',
};

/**
 * How a candidate compares: `same`; `fits` as a superset; `fixable` by an action; `proven` where no rule says so but a
 * report does; `untried` where neither does; `unknown` where the profile is silent; `blocks`.
 */
export type Outcome = 'same' | 'fits' | 'fixable' | 'proven' | 'untried' | 'unknown' | 'blocks';

export const ACTION_KINDS = ['bake', 'strap', 'partner', 'writePosition', 'writeImage'] as const;
export type ActionKind = (typeof ACTION_KINDS)[number];
/** What a route to a chip can ask for: those, the proof, and leaving the place bare. */
export const ROUTE_ACTIONS = [...ACTION_KINDS, 'verify', 'leaveOff'] as const;

export interface Rule {
  readonly outcome: Exclude<Outcome, 'proven'>;
  /** The cell's word. */
  readonly word: string;
  /** A sentence; {names} are filled with what was compared. */
  readonly reason: string;
  readonly action?: ActionKind;
  readonly source: string;
}

const PRACTICE = 'common practice, no source';
const UNKNOWN = 'what is not known is not taken for alike';

/**
 * The rules, by attribute and relation. A family may change the outcome of a rule that says `fits`, `untried` or `blocks`;
 * nothing changes what is unknown.
 */
export const RULES = {
  'package/same': { outcome: 'same', word: 'same', reason: '{package} on both.', source: 'land pattern' },
  'package/other': {
    outcome: 'blocks',
    word: 'other',
    reason: 'The place takes {wanted}; this is {package}.',
    source: 'land pattern',
  },
  'pins/same': { outcome: 'same', word: 'same', reason: 'Every pin is the same.', source: 'pin map' },
  'pins/superset': {
    outcome: 'fits',
    word: 'fits',
    reason: 'Every pin that this board uses is the same; {differ} differ where nothing is connected.',
    source: 'pin map',
  },
  'pins/differ': { outcome: 'blocks', word: 'differ', reason: 'Used pins differ: {differ}.', source: 'pin map' },
  'supply/none': { outcome: 'same', word: 'none', reason: 'Nothing supplies this place.', source: 'board file' },
  'supply/inside': { outcome: 'fits', word: 'fits', reason: '{supply} V lies within {range} V.', source: 'profile' },
  'supply/outside': {
    outcome: 'blocks',
    word: 'outside',
    reason: 'The place gives {supply} V; this takes {range} V.',
    source: 'profile',
  },
  'revision/same': { outcome: 'same', word: 'same', reason: '{revision}, as the board was built.', source: PRACTICE },
  'revision/later': {
    outcome: 'fits',
    word: 'later',
    reason: '{revision} after {built}: a later revision is often a superset.',
    source: PRACTICE,
  },
  'revision/earlier': {
    outcome: 'untried',
    word: 'earlier',
    reason: '{revision} before {built}: an earlier revision may lack something.',
    source: PRACTICE,
  },
  'revision/family': {
    outcome: 'blocks',
    word: 'other',
    reason: 'Of the family {family}; the place was built for {builtFamily}.',
    source: PRACTICE,
  },
  'position/none': { outcome: 'same', word: 'none', reason: 'No position is needed.', source: 'board file' },
  'position/strapsRight': {
    outcome: 'fits',
    word: 'straps',
    reason: '{straps} read {share} of the supply, bin {bin} of {bins}: {position}.',
    source: 'strap code',
  },
  'position/strapsWrong': {
    outcome: 'fixable',
    word: 'straps',
    reason: '{straps} read {share}, bin {bin} of {bins}; {position} is bin {wanted}.',
    action: 'strap',
    source: 'strap code',
  },
  'position/strapsMarginal': {
    outcome: 'fixable',
    word: 'straps',
    reason: '{straps} read {share}, bin {bin} of {bins}, but not at every tolerance.',
    action: 'strap',
    source: 'strap code',
  },
  'position/strapsHopeless': {
    outcome: 'blocks',
    word: 'straps',
    reason: 'No pair of resistors gives bin {wanted} of {bins} for sure.',
    source: 'strap code',
  },
  'position/noCode': {
    outcome: 'blocks',
    word: 'no code',
    reason: 'This type has no code for {position}.',
    source: 'strap code',
  },
  'position/imageKeeps': {
    outcome: 'fits',
    word: 'in image',
    reason: 'It learns {position} from {memory}, which stays.',
    source: PRACTICE,
  },
  'position/imageWritten': {
    outcome: 'fixable',
    word: 'in image',
    reason: 'It learns {position} from its image, which has to be written for it.',
    action: 'writePosition',
    source: PRACTICE,
  },
  'position/fusedSame': {
    outcome: 'same',
    word: 'fused',
    reason: 'Fused as {position} of the same board.',
    source: PRACTICE,
  },
  'position/fusedOther': {
    outcome: 'blocks',
    word: 'fused',
    reason: 'Fused as {from}; the place is {position} of {board}, and fuses cannot be changed.',
    source: PRACTICE,
  },
  'image/none': { outcome: 'same', word: 'none', reason: 'No image is loaded here.', source: 'board file' },
  'image/same': { outcome: 'same', word: 'same', reason: 'Loads {image}, as the board has it.', source: 'profile' },
  'image/damaged': {
    outcome: 'fixable',
    word: 'damaged',
    reason: 'The image in {memory} fails its checks.',
    action: 'writeImage',
    source: 'image checks',
  },
  'image/rewritten': {
    outcome: 'fixable',
    word: 'rewrite',
    reason: 'This bench rewrites {memory} with every controller.',
    action: 'writeImage',
    source: 'school of this bench',
  },
  'image/other': {
    outcome: 'blocks',
    word: 'other',
    reason: 'Loads {image}; the board holds {wanted}.',
    source: 'profile',
  },
  'partner/free': { outcome: 'same', word: 'free', reason: 'Works with any memory.', source: 'profile' },
  'partner/comes': {
    outcome: 'fixable',
    word: 'comes too',
    reason: 'Paired: its own {partner} must move to {memory} with it.',
    action: 'partner',
    source: PRACTICE,
  },
  'partner/missing': {
    outcome: 'blocks',
    word: 'missing',
    reason: 'Paired with its own {partner}, which is not there.',
    source: PRACTICE,
  },
  'partner/noPlace': {
    outcome: 'blocks',
    word: 'no place',
    reason: 'Paired with its own {partner}, and the board has no place for it.',
    source: PRACTICE,
  },
  'height/low': { outcome: 'fits', word: 'fits', reason: '{height} mm, {room} mm as built.', source: 'profile' },
  'height/free': {
    outcome: 'fits',
    word: 'taller',
    reason: '{height} mm, {room} mm as built; no shield lies over it.',
    source: 'profile',
  },
  'height/shield': {
    outcome: 'blocks',
    word: 'too tall',
    reason: '{height} mm under {shield}, {room} mm as built.',
    source: 'profile',
  },
  'heat/bears': {
    outcome: 'fits',
    word: 'bears it',
    reason: 'Bears {limit} °C; {alloy} needs {peak} °C.',
    source: PRACTICE,
  },
  'heat/low': {
    outcome: 'blocks',
    word: 'too low',
    reason: 'Bears {limit} °C; {alloy} needs {peak} °C.',
    source: PRACTICE,
  },
  'moisture/dry': { outcome: 'fits', word: 'dry', reason: '{left} of its floor life left.', source: 'J-STD-033' },
  'moisture/bake': {
    outcome: 'fixable',
    word: 'bake',
    reason: '{why}: bake first.',
    action: 'bake',
    source: 'J-STD-033',
  },
  unknown: { outcome: 'unknown', word: 'unknown', reason: 'Not known: {what}.', source: UNKNOWN },
} as const satisfies Readonly<Record<string, Rule>>;

export type RuleId = keyof typeof RULES;

/** Puts what was compared into a rule's sentence. */
export const fillReason = (reason: string, facts: Readonly<Record<string, string>>): string =>
  reason.replace(/\{(\w+)\}/g, (_, name: string) => facts[name] ?? `{${name}}`);
