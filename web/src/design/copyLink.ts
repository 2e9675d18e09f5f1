import { tell } from './tell';

/** Copies the link to a client's page, and shows it, for where a browser does not let it be copied. */
export async function copyLink(link: string) {
  await navigator.clipboard.writeText(link).catch(() => undefined);
  tell(link, { title: 'The link to the client’s page is copied' });
}
