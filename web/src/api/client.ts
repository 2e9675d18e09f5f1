import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Amount = Schemas['Amount'];
export type Figure = Schemas['Figure'];
export type Why = Schemas['Why'];
export type Problem = { field: string; value: string; message: string };

/** What the server says when it refuses: RFC 9457, with the fields it concerns. */
export class ApiError extends Error {
  readonly status: number;
  readonly problems: Problem[];

  constructor(status: number, detail: string, problems: Problem[]) {
    super(detail);
    this.status = status;
    this.problems = problems;
  }

  /** The message for a field, or undefined. */
  of(field: string): string | undefined {
    return this.problems.find((p) => p.field === field)?.message;
  }
}

/** The message for a field of whatever was thrown. */
export function problemOf(error: unknown, field: string): string | undefined {
  return error instanceof ApiError ? error.of(field) : undefined;
}

/** Problems in one text, each with the value that it is about. */
export const told = (problems: Problem[]) =>
  problems.map((p) => (p.value ? `“${p.value}”: ${p.message}` : p.message)).join('. ');

/** What to tell a person of whatever was thrown. */
export function messageOf(error: unknown): string {
  return error instanceof Error ? error.message : 'Something went wrong.';
}

/** A cookie's value, or nothing. */
export function cookie(name: string): string {
  const found = document.cookie.split('; ').find((c) => c.startsWith(`${name}=`));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : '';
}

/** What an answer that is no success says. A session that has ended is told to the page. */
export async function refusalOf(response: Response): Promise<ApiError> {
  if (response.status === 401 && !response.url.endsWith('/api/session'))
    window.dispatchEvent(new Event('signed-out'));
  const body = (await response.json().catch(() => ({}))) as { detail?: string; problems?: Problem[] };
  return new ApiError(
    response.status,
    body.detail ?? 'The server does not answer as expected. What you typed stays; try again.',
    body.problems ?? [],
  );
}

// A page that asks by itself keeps no session alive: only what a person does counts as activity.
let lastDeed = Date.now();
for (const deed of ['pointerdown', 'keydown', 'wheel', 'touchstart'])
  window.addEventListener(deed, () => (lastDeed = Date.now()), { passive: true, capture: true });
const AT_WORK = 60_000;

/** The decimal mark that the business types; the desk says with each request that its numbers are typed so. */
export const typing = { mark: '.' };

/** A plain decimal as the business types it. */
export const inMark = (plain: string) => (typing.mark === ',' ? plain.replace('.', ',') : plain);

const middleware: Middleware = {
  onRequest({ request }) {
    request.headers.set('X-XSRF-TOKEN', cookie('XSRF-TOKEN'));
    if (typing.mark !== '.') request.headers.set('Quill-Decimal-Mark', typing.mark);
    if (Date.now() - lastDeed > AT_WORK) request.headers.set('Quill-By-Itself', 'yes');
    return request;
  },
  async onResponse({ response }) {
    if (response.ok) return response;
    throw await refusalOf(response);
  },
  onError() {
    return new ApiError(0, 'The server does not answer. What you typed stays here; try again.', []);
  },
};

export const api = createClient<paths>({ baseUrl: window.location.origin });
api.use(middleware);

/** The data of an answer; errors were thrown before. */
export async function data<T>(answer: Promise<{ data?: T }>): Promise<T> {
  return (await answer).data as T;
}
