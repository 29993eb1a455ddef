import { readFileSync, writeFileSync } from 'node:fs';
import { PDFDocument } from '@cantoo/pdf-lib';
import { plan, profileForTicket, type Ticket } from '@foglio/core';
import { impose, readFacts, type PdfFacts } from '@foglio/pdf';

/** One way of imposing a file four a side, in a process of its own. */

type Way = 'facts' | 'ours' | 'library';

const [way, source, out] = process.argv.slice(2) as [Way, string, string];
const A4 = { width: 595.276, height: 841.89 };

/** Known beforehand, as they are in the app, where imposing reads them from the database: the facts, the ticket whole. */
const KNOWN = `${source}.known.json`;

interface Known {
  readonly facts: PdfFacts;
  readonly ticket: Ticket;
}

async function know(bytes: Uint8Array): Promise<Known> {
  const { readTicket } = await import('@foglio/core/validate');
  const ticket = readTicket({
    version: 1,
    documents: [{ file: 'source.pdf' }],
    sides: 'two-sided',
    layout: { kind: 'grid', pagesPerSide: 4 },
  });
  return { facts: await readFacts(bytes), ticket };
}

/** Plan and file. */
async function ours(bytes: Uint8Array): Promise<Uint8Array> {
  const { facts, ticket } = JSON.parse(readFileSync(KNOWN, 'utf8')) as Known;
  const documents = [{ name: 'source.pdf', bytes, ...facts }];
  return impose({
    plan: plan(ticket, documents, profileForTicket(ticket, documents)),
    ticket,
    documents,
    blanks: 'every-sheet',
  });
}

/** The library's own embedding in one call, drawn at the same places. */
async function byLibrary(bytes: Uint8Array): Promise<Uint8Array> {
  const target = await PDFDocument.create();
  const loaded = await PDFDocument.load(bytes);
  const pages = await target.embedPdf(loaded, loaded.getPageIndices());
  const scale = 0.48;
  for (let first = 0; first < pages.length; first += 4) {
    const side = target.addPage([A4.width, A4.height]);
    pages.slice(first, first + 4).forEach((page, index) => {
      const x = 10 + (index % 2) * (A4.width / 2);
      const y = 10 + (index < 2 ? A4.height / 2 : 0);
      side.drawPage(page, { x, y, xScale: scale, yScale: scale });
    });
  }
  return target.save();
}

const bytes = new Uint8Array(readFileSync(source));
if (way === 'facts') writeFileSync(KNOWN, JSON.stringify(await know(bytes)));
else writeFileSync(out, await (way === 'ours' ? ours(bytes) : byLibrary(bytes)));
// Not getrusage: its peak begins with the process that forked this one.
const peak = /^VmHWM:\s+(\d+) kB$/m.exec(readFileSync('/proc/self/status', 'utf8'))?.[1];
process.send?.(Number(peak), () => process.disconnect());
