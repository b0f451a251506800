import { grammarForms } from '@/core/command-line';
import { PAGE_LINES, PLAN_GRAMMAR } from '@/core/heat';

/** What the entry line of a heat plan knows while it is typed in. */
export { completePlanEntry, parsePlanEntry } from '@/core/heat';

export const FORMS = [...grammarForms(PLAN_GRAMMAR), ...PAGE_LINES];
