// The typed client: every call gives the answer or throws a Problem in the words of the job.
import createClient, { type Middleware } from 'openapi-fetch';

import { words } from '../words';
import { said } from '../words/said';
import { sentOnce } from './once';
import type { components, paths } from './schema.gen';

export type Schema = components['schemas'];
export type Problem = Schema['Problem'];

export class ProblemError extends Error {
  constructor(
    readonly code: string,
    detail: string,
    readonly where: string | null = null,
  ) {
    super(detail);
  }
}

export const api = createClient<paths>({ baseUrl: '' });
api.use(sentOnce satisfies Middleware);

export interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

export async function take<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await call;
  } catch {
    throw new ProblemError('unreachable', words.errors.unreachable);
  }
  // done, and nothing to say
  if (answer.data !== undefined || answer.response.status === 204) return answer.data as T;
  const problem = answer.error as Partial<Problem> | undefined;
  if (problem?.detail) {
    const told = problem.said ? said(problem.said) : problem.detail;
    throw new ProblemError(problem.code ?? 'error', told, problem.where ?? null);
  }
  throw new ProblemError('error', words.errors.unexpected(answer.response.status));
}
