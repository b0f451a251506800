import type { Database } from './client';

/** What a transaction and the database itself have in common: repositories take either. */
export type Session = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete'>;
