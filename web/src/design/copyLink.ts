import { tell } from './tell';

/** Copies a link, to a client's page unless its title says otherwise, and shows it, for where a browser does not let it be copied. */
export async function copyLink(link: string, title = 'The link to the client’s page is copied') {
  await navigator.clipboard.writeText(link).catch(() => undefined);
  tell(link, { title });
}
