import type { Interpretation } from './definition';

export const good = (message: string): Interpretation => ({ message, state: 'good' });
export const bad = (message: string): Interpretation => ({ message, state: 'bad' });
export const plain = (message = ''): Interpretation => ({ message, state: 'plain' });
