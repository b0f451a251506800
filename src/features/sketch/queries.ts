import 'server-only';
import * as sketch from '@/application/library/sketch';
import { database } from '@/db/client';

/** A board with its newest revision and its photographs, as the editor opens it. */
export const loadSketch = async (id: string) => sketch.loadSketch(await database(), id);
