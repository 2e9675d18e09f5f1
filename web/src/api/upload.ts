import { ApiError, type Problem } from './client';

/** Sends one file. The generated client knows only JSON, so this one call is written out. */
export async function upload<T>(path: string, file: File): Promise<T> {
  const form = new FormData();
  form.append('file', file);
  const token = document.cookie.split('; ').find((c) => c.startsWith('XSRF-TOKEN='));
  let response: Response;
  try {
    response = await fetch(path, {
      method: 'POST',
      body: form,
      headers: { 'X-XSRF-TOKEN': token ? decodeURIComponent(token.slice('XSRF-TOKEN='.length)) : '' },
    });
  } catch {
    throw new ApiError(0, 'The server does not answer. The file was not taken; try again.', []);
  }
  const body = (await response.json().catch(() => ({}))) as { detail?: string; problems?: Problem[] };
  if (!response.ok)
    throw new ApiError(
      response.status,
      body.detail ?? 'The file was not taken; try again.',
      body.problems ?? [],
    );
  return body as T;
}
