// Prints what each entry loads first, gzipped, and fails above its limit.
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

const limits = { 'client.html': 90, 'index.html': 260 };
let over = false;
for (const [page, limit] of Object.entries(limits)) {
  const html = readFileSync(`dist/${page}`, 'utf8');
  const files = new Set([...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map((m) => m[1]));
  const bytes = [...files].reduce((sum, file) => sum + gzipSync(readFileSync(`dist/${file}`)).length, 0);
  const kilobytes = (bytes / 1024).toFixed(1);
  process.stdout.write(`${page}: ${kilobytes} KB of JavaScript, gzipped (at most ${limit})\n`);
  over ||= bytes > limit * 1024;
}
if (over) process.exit(1);
