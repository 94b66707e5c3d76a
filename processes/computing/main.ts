/** The computing thread of server/threads: one task after the other. */
import { parentPort } from 'node:worker_threads';
import { Problem } from '@/core/problem';
import { buffersIn } from '@/server/threads/buffers';
import type { TaskAnswer, TaskRequest } from '@/server/threads/computing';
import { tasks } from '@/server/threads/tasks';

async function answerOf({ name, input }: TaskRequest): Promise<TaskAnswer> {
  try {
    return { result: await (tasks[name] as (given: unknown) => unknown)(input) };
  } catch (error) {
    if (error instanceof Problem) return { problem: error.toJSON() };
    return { bug: (error as Error).stack ?? String(error) };
  }
}

parentPort!.on('message', (request: TaskRequest) => {
  void answerOf(request).then((answer) => parentPort!.postMessage(answer, buffersIn(answer)));
});
