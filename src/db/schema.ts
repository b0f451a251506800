import { blob, index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

/**
 * What was answered to an entry, under the key that whoever entered made for it. A repeated delivery gets the same answer;
 * the same key for something else is refused.
 */
export const entries = sqliteTable('entries', {
  key: text('key').primaryKey(),
  /** What it was entered to, such as `job 31` or `stock`. */
  scope: text('scope').notNull(),
  /** SHA-256 of what was asked, in hex; empty for an entry that was given up before it came. */
  request: text('request').notNull(),
  answer: text('answer').notNull(),
  at: text('at').notNull(),
});

/** The boards of the library; their files lie in `board_revisions`. */
export const boards = sqliteTable('boards', {
  id: text('id').primaryKey(),
  /** The newest revision of its file. */
  revision: integer('revision').notNull().default(1),
  /** Set once no new job is to be opened on it. */
  retiredAt: text('retired_at'),
});

/** Board files as they were given, checked before they are stored. Append-only: a job stays on the one it was opened with. */
export const boardRevisions = sqliteTable(
  'board_revisions',
  {
    boardId: text('board_id')
      .notNull()
      .references(() => boards.id),
    revision: integer('revision').notNull(),
    json: text('json').notNull(),
    addedAt: text('added_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.boardId, t.revision] })],
);

/** Straightened photographs of a board, one for each side; their bytes lie in `images`. */
export const boardPhotos = sqliteTable(
  'board_photos',
  {
    boardId: text('board_id')
      .notNull()
      .references(() => boards.id),
    side: text('side').notNull(),
    sha256: text('sha256')
      .notNull()
      .references(() => images.sha256),
    /** Where it lies on the board and how sure that is, as JSON. */
    place: text('place').notNull(),
    addedAt: text('added_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.boardId, t.side] })],
);

export const stations = sqliteTable('stations', {
  id: text('id').primaryKey(),
  json: text('json').notNull(),
});

/** Calibrations that were taken over, in the order they came. Append-only. */
export const calibrations = sqliteTable(
  'calibrations',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    /** Made by whoever enters: a repeated delivery is stored once. */
    key: text('key').notNull(),
    stationId: text('station_id')
      .notNull()
      .references(() => stations.id),
    at: text('at').notNull(),
    json: text('json').notNull(),
  },
  (t) => [uniqueIndex('calibrations_key').on(t.key), index('calibrations_station').on(t.stationId)],
);

export const imageFamilies = sqliteTable('image_families', {
  id: text('id').primaryKey(),
  json: text('json').notNull(),
});

/** Image bytes by their SHA-256: the same bytes are kept once. */
export const images = sqliteTable('images', {
  sha256: text('sha256').primaryKey(),
  name: text('name').notNull(),
  familyId: text('family_id'),
  sizeBytes: integer('size_bytes').notNull(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  addedAt: text('added_at').notNull(),
});

/** Part profiles, checked before they are stored. */
export const partTypes = sqliteTable('part_types', {
  id: text('id').primaryKey(),
  json: text('json').notNull(),
});

/** How this bench treats a family of parts. */
export const partFamilies = sqliteTable('part_families', {
  id: text('id').primaryKey(),
  json: text('json').notNull(),
});

/** Compatibility reports: what somebody saw when a part type went onto a place. */
export const evidence = sqliteTable(
  'evidence',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    /** Made by whoever enters: a repeated delivery is stored once. */
    key: text('key').notNull(),
    typeId: text('type_id').notNull(),
    boardId: text('board_id').notNull(),
    json: text('json').notNull(),
    addedAt: text('added_at').notNull(),
  },
  (t) => [uniqueIndex('evidence_key').on(t.key), index('evidence_board').on(t.boardId)],
);

/** What happened to lots, chips and donors. Append-only: nothing here is ever changed or deleted. */
export const stockEvents = sqliteTable(
  'stock_events',
  {
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    key: text('key').notNull(),
    at: text('at').notNull(),
    bench: text('bench').notNull(),
    actor: text('actor').notNull(),
    body: text('body').notNull(),
    /** SHA-256 over this entry and the seal of the one before it; none for entries from before that was kept. */
    seal: text('seal'),
  },
  (t) => [uniqueIndex('stock_events_key').on(t.key)],
);

export const jobs = sqliteTable('jobs', {
  /** The job's number, as written on its bag. */
  number: integer('number').primaryKey({ autoIncrement: true }),
  boardId: text('board_id')
    .notNull()
    .references(() => boards.id),
  /** The revision of the board's file that the job's record speaks of. */
  boardRevision: integer('board_revision').notNull().default(1),
  /** A job to learn on: nothing of it counts anywhere else. */
  training: integer('training', { mode: 'boolean' }).notNull().default(false),
  openedAt: text('opened_at').notNull(),
});

/** What this bench has settled for itself, as JSON by name. */
export const settings = sqliteTable('settings', {
  name: text('name').primaryKey(),
  json: text('json').notNull(),
});

/** Readings on boards that were known to be good. */
export const references = sqliteTable(
  'references',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    boardId: text('board_id')
      .notNull()
      .references(() => boards.id),
    point: text('point').notNull(),
    value: real('value').notNull(),
    source: text('source').notNull(),
    addedAt: text('added_at').notNull(),
    /** The import that brought it, where one did: it can be taken back as one. */
    importKey: text('import_key'),
  },
  (t) => [uniqueIndex('references_once').on(t.boardId, t.point, t.source)],
);

/** Append-only: nothing here is ever changed or deleted. */
export const jobEvents = sqliteTable(
  'job_events',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    jobNumber: integer('job_number')
      .notNull()
      .references(() => jobs.number),
    seq: integer('seq').notNull(),
    /** Made by whoever enters: a repeated delivery is stored once. */
    key: text('key').notNull(),
    at: text('at').notNull(),
    bench: text('bench').notNull(),
    actor: text('actor').notNull(),
    replaces: integer('replaces'),
    /** Where what it says comes from, as JSON; none for entries from before that was kept. */
    origin: text('origin'),
    body: text('body').notNull(),
    /** SHA-256 over this entry and the seal of the one before it in the shop; none for entries from before that was kept. */
    seal: text('seal'),
  },
  (t) => [
    uniqueIndex('job_events_seq').on(t.jobNumber, t.seq),
    uniqueIndex('job_events_key').on(t.key),
    index('job_events_job').on(t.jobNumber),
  ],
);

/**
 * What lists show of a job, computed from its events when one is appended. A row whose `version` is not that of the newest
 * event is stale and computed anew; nothing here is the only place of anything.
 */
export const jobSummaries = sqliteTable(
  'job_summaries',
  {
    jobNumber: integer('job_number')
      .primaryKey()
      .references(() => jobs.number),
    /** Number of the newest event that it was computed from. */
    version: integer('version').notNull(),
    symptom: text('symptom').notNull(),
    /** Serial number, ticket and owner's code. */
    marks: text('marks').notNull().default(''),
    /** The pack came in swollen, whether or not it is out by now. */
    swollen: integer('swollen', { mode: 'boolean' }).notNull(),
    /** The outcome where the last closing still counts. */
    outcome: text('outcome'),
    lastAt: text('last_at').notNull(),
    /** The soak that runs, as JSON. */
    soak: text('soak'),
    /** Whether a part was decided to be replaced. */
    replaces: integer('replaces', { mode: 'boolean' }).notNull(),
    /** What the Bench shows of an open job, as JSON, and what it was computed from. */
    step: text('step'),
    stepBasis: text('step_basis'),
  },
  (t) => [index('job_summaries_outcome').on(t.outcome)],
);

/** What the closings of jobs say, one row for each: computed from the events, written anew with them, and never the only place of anything. */
export const ledgerJobs = sqliteTable(
  'ledger_jobs',
  {
    jobNumber: integer('job_number')
      .notNull()
      .references(() => jobs.number),
    closing: integer('closing').notNull(),
    /** Number of the newest event that it was computed from, and the form of the computation. */
    version: integer('version').notNull(),
    form: integer('form').notNull(),
    boardId: text('board_id').notNull(),
    closedAt: text('closed_at').notNull(),
    outcome: text('outcome').notNull(),
    isComeback: integer('is_comeback', { mode: 'boolean' }).notNull(),
    daysGood: real('days_good'),
    /** What was mended, by the board's names, with commas; empty where nothing was. */
    cause: text('cause').notNull(),
    person: text('person').notNull(),
    source: text('source'),
    /** The station on which the plan that was kept last is made. */
    station: text('station'),
    minutes: real('minutes').notNull(),
    price: real('price'),
    quoted: real('quoted'),
    successTold: real('success_told'),
    promisedAt: text('promised_at'),
  },
  (t) => [
    primaryKey({ columns: [t.jobNumber, t.closing] }),
    index('ledger_jobs_board').on(t.boardId, t.closedAt),
    index('ledger_jobs_closed').on(t.closedAt),
  ],
);

/** Every reading of closed jobs, with what the job turned out to be. */
export const ledgerReadings = sqliteTable(
  'ledger_readings',
  {
    id: integer('id').primaryKey(),
    jobNumber: integer('job_number')
      .notNull()
      .references(() => jobs.number),
    closing: integer('closing').notNull(),
    boardId: text('board_id').notNull(),
    point: text('point').notNull(),
    name: text('name').notNull(),
    /** None for what is no figure; `isOpen` for an open input. */
    value: real('value'),
    isOpen: integer('is_open', { mode: 'boolean' }).notNull(),
    words: text('words').notNull(),
    phase: text('phase', { enum: ['fault', 'good'] }).notNull(),
    cause: text('cause').notNull(),
  },
  (t) => [index('ledger_readings_point').on(t.boardId, t.point), index('ledger_readings_job').on(t.jobNumber)],
);

/** Drills that were begun, with what was done in them. Nothing else reads them: no record, no statistic, no stock. */
export const drills = sqliteTable(
  'drills',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    at: text('at').notNull(),
    person: text('person').notNull(),
    spec: text('spec').notNull(),
    /** What the program itself takes for it, minutes. */
    parMinutes: real('par_minutes').notNull(),
    steps: text('steps').notNull(),
    /** How it ended; none while it goes on. */
    end: text('end'),
    score: real('score'),
    regretMinutes: real('regret_minutes'),
  },
  (t) => [index('drills_person').on(t.person)],
);

/** How well each person remembers each fact, and when it is asked again. */
export const memories = sqliteTable(
  'memories',
  {
    person: text('person').notNull(),
    fact: text('fact').notNull(),
    json: text('json').notNull(),
  },
  (t) => [primaryKey({ columns: [t.person, t.fact] })],
);

/** Who works here. Without anybody the bench is open to whoever sits at it. */
export const user = sqliteTable('user', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  /** What they type to sign in. */
  username: text('username').unique(),
  displayUsername: text('display_username'),
  /** Made from the name: nothing is ever sent to it. */
  email: text('email').notNull().unique(),
  emailVerified: integer('email_verified', { mode: 'boolean' }).notNull().default(false),
  image: text('image'),
  /** lead, technician or apprentice. */
  role: text('role').notNull().default('apprentice'),
  createdAt: integer('created_at', { mode: 'timestamp' }).notNull(),
  updatedAt: integer('updated_at', { mode: 'timestamp' }).notNull(),
});

/** Who is signed in, and at which bench. */
export const session = sqliteTable('session', {
  id: text('id').primaryKey(),
  token: text('token').notNull().unique(),
  userId: text('user_id')
    .notNull()
    .references(() => user.id, { onDelete: 'cascade' }),
  bench: text('bench').notNull().default(''),
  expiresAt: integer('expires_at', { mode: 'timestamp' }).notNull(),
  ipAddress: text('ip_address'),
  userAgent: text('user_agent'),
  createdAt: integer('created_at', { mode: 'timestamp' }).notNull(),
  updatedAt: integer('updated_at', { mode: 'timestamp' }).notNull(),
});

/** How somebody signs in: a password, hashed by the package that checks it. */
export const account = sqliteTable('account', {
  id: text('id').primaryKey(),
  accountId: text('account_id').notNull(),
  providerId: text('provider_id').notNull(),
  userId: text('user_id')
    .notNull()
    .references(() => user.id, { onDelete: 'cascade' }),
  accessToken: text('access_token'),
  refreshToken: text('refresh_token'),
  idToken: text('id_token'),
  accessTokenExpiresAt: integer('access_token_expires_at', { mode: 'timestamp' }),
  refreshTokenExpiresAt: integer('refresh_token_expires_at', { mode: 'timestamp' }),
  scope: text('scope'),
  password: text('password'),
  createdAt: integer('created_at', { mode: 'timestamp' }).notNull(),
  updatedAt: integer('updated_at', { mode: 'timestamp' }).notNull(),
});

/** What a package keeps for a while, such as a challenge. */
export const verification = sqliteTable('verification', {
  id: text('id').primaryKey(),
  identifier: text('identifier').notNull(),
  value: text('value').notNull(),
  expiresAt: integer('expires_at', { mode: 'timestamp' }).notNull(),
  createdAt: integer('created_at', { mode: 'timestamp' }),
  updatedAt: integer('updated_at', { mode: 'timestamp' }),
});

/** A lead's word for one entry that an apprentice may not make alone. Used once, within minutes. */
export const confirmations = sqliteTable('confirmations', {
  id: text('id').primaryKey(),
  leadName: text('lead_name').notNull(),
  /** The sign-in that it is for. */
  sessionId: text('session_id').notNull(),
  untilAt: text('until_at').notNull(),
  usedAt: text('used_at'),
});
