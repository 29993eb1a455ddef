// Draws the pictures of the guide anew, from the demo: node scripts/guide-pictures.mjs http://127.0.0.1:PORT
// (npm start serves the demo there). Each job of the guide is opened on the Bench and a piece of the screen is kept.
import { mkdirSync } from 'node:fs';
import { build } from 'esbuild';
import { chromium } from '@playwright/test';

const base = process.argv[2];
if (!base) {
  console.error('usage: node scripts/guide-pictures.mjs http://127.0.0.1:PORT');
  process.exit(2);
}
const OUT = 'apps/web/public/guide';
/** Of a picture of lanes, in CSS pixels; it is shown half as large, sharp on dense screens. */
const SIZE = { width: 528, height: 352 };

mkdirSync(OUT, { recursive: true });
const made = await build({
  entryPoints: ['apps/web/src/app/guide/guide-jobs.ts'],
  bundle: true,
  format: 'esm',
  write: false,
});
const { GUIDE_JOBS, guideTicket } = await import(
  `data:text/javascript;base64,${Buffer.from(made.outputFiles[0].contents).toString('base64')}`
);

const ask = async (path, body) => {
  const headers = { 'Content-Type': 'application/json' };
  const answer = await fetch(`${base}/api${path}`, body ? { method: 'POST', headers, body: JSON.stringify(body) } : {});
  if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
  return answer.json();
};

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox'] });
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const jobs = await ask('/jobs');
  const idOf = (name) => {
    const job = jobs.find(({ names }) => names.includes(name));
    if (!job) throw new Error(`the demo's ${name} is not there; start with a fresh demo`);
    return job.ticket.documents[job.names.indexOf(name)].file;
  };
  for (const job of GUIDE_JOBS) {
    const { id } = await ask('/jobs', { ticket: guideTicket(job, job.files.map(idOf)) });
    await page.goto(`${base}/jobs/${id}`);
    await page.locator('fo-lanes fo-page-image[data-state="drawn"]').first().waitFor();
    await page.locator('fo-sheet-panel fo-page-image[data-state="drawn"]').first().waitFor();
    if (job.shows === 'joined') {
      await page.getByRole('button', { name: 'Leaf through' }).click();
      await page.locator('fo-joined-page fo-page-image[data-state="drawn"]').nth(3).waitFor();
    }
    await page.waitForLoadState('networkidle');
    const places = { lanes: 'fo-lanes', sheet: 'fo-sheet-panel .sides', joined: 'fo-joined-page' };
    const box = await page.locator(places[job.shows]).first().boundingBox();
    // The lanes from their upper left corner, under their title; of a sheet and of joined ones all there is.
    const clip = job.shows === 'lanes' ? { x: box.x, y: box.y + 40, ...SIZE } : box;
    await page.screenshot({ path: `${OUT}/${job.name}.png`, clip });
    console.log(job.name);
  }
} finally {
  await browser.close();
}
