/**
 * Names that must not be taken for one another. A plain text may become any of them (files, typed entries and tests write plain
 * text); one that already is a net is not taken where a part is asked for: the compiler says so.
 */
declare const kind: unique symbol;
type Named<Base extends string | number, Kind extends string> = Base & { readonly [kind]?: Kind };

/** Reference designator of a part or a test point, such as U4. */
export type PartRef = Named<string, 'part'>;
/** A net as the board file spells it. */
export type NetName = Named<string, 'net'>;
/** A rail of a board; often, but not always, spelled like its net. */
export type RailId = Named<string, 'rail'>;
/** One physical chip of the stock, such as C-105. */
export type ChipId = Named<string, 'chip'>;
/** A lot of new parts, such as L-12. */
export type LotId = Named<string, 'lot'>;
/** A donor board, such as D-3. */
export type DonorId = Named<string, 'donor'>;
/** SHA-256 of a file's bytes, 64 lower-case hex digits. */
export type Sha256 = Named<string, 'sha256'>;
/** The number that a job is opened under. */
export type JobNumber = Named<number, 'job'>;
