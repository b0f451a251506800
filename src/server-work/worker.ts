import { TASKS, type TaskName } from './tasks';

/** What a thread of the pool does with a message. */
export default function work({ task, request }: { readonly task: TaskName; readonly request: unknown }): unknown {
  return (TASKS[task] as (r: unknown) => unknown)(request);
}
