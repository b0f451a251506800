import { z } from 'zod';
import { boardSchema } from '../core/board';
import { trialSchema } from '../core/calibration';
import { packageManifestSchema } from '../core/board-package';
import { readingSchema, sessionAnswerSchema, sessionLineSchema } from '../core/diagnose';
import { heatPlanSchema, stationSchema, testBodySchema } from '../core/heat';
import { imageFamilySchema } from '../core/image';
import { partFamilySchema, partTypeSchema, reportSchema } from '../core/parts';
import { answersSchema } from '../core/sketch';
import { dayProblemSchema } from '../core/day';
import { drillSchema, drillStepSchema } from '../core/drill';
import { jobEventSchema, jobReportSchema } from '../core/job';
import { instrumentSchema } from '../devices/instruments';

/** The published formats: the same schemas check files, the database and the command line. */
export const FORMATS = {
  board: boardSchema,
  reading: readingSchema,
  'package-manifest': packageManifestSchema,
  'session-line': sessionLineSchema,
  'session-answer': sessionAnswerSchema,
  'heat-plan': heatPlanSchema,
  'test-body': testBodySchema,
  'station-trials': trialSchema.array(),
  station: stationSchema,
  'image-family': imageFamilySchema,
  'part-type': partTypeSchema,
  'part-family': partFamilySchema,
  'sketch-answers': answersSchema,
  report: reportSchema,
  day: dayProblemSchema,
  instrument: instrumentSchema,
  drill: drillSchema,
  'drill-steps': drillStepSchema.array(),
  'job-event': jobEventSchema,
  'job-report': jobReportSchema,
} as const;

/** JSON Schema (draft 2020-12) of a format, as a file is written: defaults may be left out. */
export const jsonSchemaOf = (name: keyof typeof FORMATS): object => z.toJSONSchema(FORMATS[name], { io: 'input' });
