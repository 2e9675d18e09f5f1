import { ApiError, cookie, refusalOf } from './client';

/** Sends one file, and what is said of it. The generated client knows only JSON, so this one call is written out. */
export async function upload<T>(path: string, file: File, how?: unknown): Promise<T> {
  const body = new FormData();
  body.append('file', file);
  if (how !== undefined)
    body.append('how', new Blob([JSON.stringify(how)], { type: 'application/json' }), 'how.json');
  const headers = { 'X-XSRF-TOKEN': cookie('XSRF-TOKEN') };
  const response = await fetch(path, { method: 'POST', body, headers }).catch(() => {
    throw new ApiError(0, 'The server does not answer. The file was not taken; try again.', []);
  });
  if (!response.ok) throw await refusalOf(response);
  return (await response.json()) as T;
}
