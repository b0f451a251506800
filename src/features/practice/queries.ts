import 'server-only';
import type { Practice } from '@/core/diagnose';
import { database } from '@/db/client';
import { findPractice } from '@/db/knowledge';

export const loadPractice = async (): Promise<Practice> => findPractice(await database());
