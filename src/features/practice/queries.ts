import 'server-only';
import { loadBusiness as businessOf } from '@/application/day/business';
import type { Business } from '@/core/day';
import type { Practice } from '@/core/diagnose';
import type { FilePreset } from '@/core/import';
import type { ReportWords } from '@/core/job';
import * as presets from '@/application/file-presets';
import * as places from '@/application/place';
import type { BenchPlace } from '@/core/units';
import { database } from '@/db/client';
import { findPractice, findReportWords } from '@/db/knowledge';

export const loadPractice = async (): Promise<Practice> => findPractice(await database());

export const loadReportWords = async (): Promise<ReportWords> => findReportWords(await database());

export const loadBusiness = async (): Promise<Business> => businessOf(await database());

export const loadFilePresets = async (): Promise<FilePreset[]> => presets.loadFilePresets(await database());

export const loadPlace = async (): Promise<BenchPlace> => places.loadPlace(await database());
