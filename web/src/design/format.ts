import type { Amount } from '../api/client';

const symbols: Record<string, string> = { EUR: '€', GBP: '£', USD: '$' };

/** Groups the digits of a decimal text; no arithmetic, and never through a floating number. */
export function plain(amount: { amount: string }): string {
  const negative = amount.amount.startsWith('-');
  const [whole = '', fraction] = amount.amount.replace('-', '').split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, ',');
  return (negative ? '−' : '') + grouped + (fraction ? `.${fraction}` : '');
}

/** The same with its currency in front. */
export function money(amount: Amount | { amount: string; currency: string }): string {
  const text = plain(amount);
  const symbol = symbols[amount.currency] ?? `${amount.currency} `;
  return text.startsWith('−') ? `−${symbol}${text.slice(1)}` : symbol + text;
}

/** An amount without its sign, where words or columns say which way it goes. */
export const magnitude = <A extends { amount: string }>(amount: A): A => ({
  ...amount,
  amount: amount.amount.replace('-', ''),
});

/** Whether an amount is nothing, told from its digits. */
export function isZero(amount: { amount: string }): boolean {
  return !/[1-9]/.test(amount.amount);
}

export function isNegative(amount: { amount: string }): boolean {
  return amount.amount.startsWith('-');
}

function utc(date: string): Date {
  return new Date(`${date}T00:00:00Z`);
}

const short = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
const long = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'long',
  year: 'numeric',
  timeZone: 'UTC',
});
const weekday = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});
const spoken = new Intl.DateTimeFormat('en-GB', {
  weekday: 'long',
  day: 'numeric',
  month: 'long',
  timeZone: 'UTC',
});

let thisYear = '';

/** Short dates of another year than that of this day name theirs. */
export const setToday = (today: string) => {
  thisYear = today.slice(0, 4);
};

export const shortDate = (date: string) =>
  short.format(utc(date)) + (thisYear && date.slice(0, 4) !== thisYear ? ` ${date.slice(0, 4)}` : '');
export const longDate = (date: string) => long.format(utc(date));
export const clockDate = (date: string) => weekday.format(utc(date)).replace(/,/g, '');
export const spokenDate = (date: string) => spoken.format(utc(date)).replace(',', '');

const moment = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'long',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
});

/** A moment by the system's clock, where the reader is. */
export const spokenMoment = (instant: string) => moment.format(new Date(instant)).replace(' at ', ', ');

/** Days from one ISO date to another; for drawing only. */
export function daysBetween(from: string, to: string): number {
  return Math.round((utc(to).getTime() - utc(from).getTime()) / 86_400_000);
}

/** A key that the server has not seen, so that a repeated request is known as the same one. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join('');
}

/** A moment by the business's clock, as it travels: without a zone. */
export const dayAndHour = (at: string) => `${longDate(at.slice(0, 10))}, ${at.slice(11, 16)}`;

/** Whether a text is a day as it travels. */
export const isDay = (text: string) => /^\d{4}-\d{2}-\d{2}$/.test(text);
