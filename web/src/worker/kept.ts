// How an answer from memory is told from one of the server.

/** Header of an answer from memory: when the server gave it. */
export const KEPT_AT = 'x-kept-at';

/** Whether an answer is kept: facts are, files and refusals are not. */
export function worthKeeping(response: Response): boolean {
  return response.ok && (response.headers.get('content-type') ?? '').startsWith('application/json');
}

/** The same answer, marked with the time at which the server gave it. */
export function keptAnswer(response: Response): Response {
  const headers = new Headers(response.headers);
  headers.set(KEPT_AT, headers.get('date') ?? '');
  return new Response(response.body, { status: response.status, headers });
}
