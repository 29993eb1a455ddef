// Writes the notices of everything that is shipped (fonts, libraries, and what these bring with them) beside the screens,
// from the packages themselves: what is not only for development, as package-lock.json has it.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const TEXT = /^(licen[cs]e|copying|notice|ofl)/i;
/** Of packages made for one kind of machine each only one is here; the notices are those of what is. */
const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8'));

function noticeOf(folder) {
  const { name, version, license, author } = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8'));
  const by = typeof author === 'string' ? author : author?.name;
  const texts = readdirSync(folder)
    .filter((file) => TEXT.test(file))
    .sort()
    .map((file) => readFileSync(join(folder, file), 'utf8').trim());
  const own = `Licence: ${license ?? 'not named'}${by ? `, ${by}` : ''}.`;
  const told =
    texts.length > 0 ? texts.join('\n\n') : `${own} The package brings no text of it; it is the standard one.`;
  return { name, text: `${name} ${version}\n${'-'.repeat(72)}\n${told}\n` };
}

const notices = Object.entries(packages)
  .filter(([folder, { dev, link }]) => folder.includes('node_modules/') && !dev && !link && existsSync(folder))
  .map(([folder]) => noticeOf(folder))
  .sort((one, other) => one.name.localeCompare(other.name));
if (notices.length === 0) throw new Error('notices: no package is installed; run "npm ci" first');
const head = `Foglio is made with the following ${notices.length} packages. Each is its authors' own.\n\n\n`;
writeFileSync('apps/web/dist/browser/notices.txt', head + notices.map(({ text }) => text).join('\n\n'));
