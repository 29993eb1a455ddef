import type { Aspect } from './aspect';
import { choicesOf } from './field';

/** "the face-up output", "mailbox 3": the keywords of PWG 5100.2 in words. */
function sayBin(bin: string): string {
  const [, kind, number] = /^(mailbox|stacker|tray)-(\d+)$/.exec(bin) ?? [];
  return kind
    ? `${kind === 'tray' ? 'output' : kind} ${number}`
    : `the ${bin.replace('large-capacity', 'large')} output`;
}

export const outputBin: Aspect = {
  name: 'output-bin',
  title: 'Which output the sheets go to',
  offer: 'Another output of the printer',
  lead: ', into ',
  fits: ({ ticket, printer }) => printer.outputBins.length > 0 || ticket.outputBin !== 'auto',
  fields: ['outputBin'],
  say: ({ ticket }) => (ticket.outputBin === 'auto' ? null : sayBin(ticket.outputBin)),
  choices: (situation) => {
    const { ticket, printer } = situation;
    const bins = new Set([...printer.outputBins, ticket.outputBin].filter((bin) => bin !== 'auto'));
    return choicesOf(situation, 'outputBin', [
      ['auto', 'The printer’s usual output'],
      ...[...bins].map((bin) => [bin, sayBin(bin)[0]!.toUpperCase() + sayBin(bin).slice(1)] as const),
    ]);
  },
};
