import { allStrings, type Attributes } from './message';
import { keyValues, octetStrings } from './octet-pairs';

/** What a printer prints with, and how much of it is left. */
export interface Supply {
  /** "Black toner", as the printer calls it. */
  readonly name: string;
  /** "#rrggbb", where its colour is known. */
  readonly colour: string | null;
  /** Percent of what it held when it was new; null where the printer does not measure it. */
  readonly percent: number | null;
}

export const SUPPLY_ATTRIBUTES = [
  'printer-supply',
  'printer-supply-description',
  'marker-names',
  'marker-colors',
  'marker-levels',
];

/** No printer has more. */
const MOST = 20;
const LONGEST_NAME = 80;

/** As PWG 5100.13, printer-supply, has it; otherwise as many printers tell it (common practice: marker-names and its like). */
export function readSupplies(attributes: Attributes): Supply[] {
  const told = octetStrings(attributes, 'printer-supply').slice(0, MOST).map(keyValues);
  const names = allStrings(attributes, 'printer-supply-description');
  const supplies = told.flatMap((pairs, at): Supply[] => {
    const colorant = pairs.get('colorantname') ?? '';
    const name = names[at]?.trim() || [colorant, pairs.get('type')].filter(Boolean).join(' ');
    // What is caught rather than used up is told of by its faults alone.
    if (name === '' || pairs.get('class') === 'receptacleThatIsFilled' || /^waste/i.test(pairs.get('type') ?? ''))
      return [];
    return [
      {
        name: nameOf(name),
        colour: colourOf(colorant),
        percent: percentOf(pairs.get('level'), pairs.get('maxcapacity')),
      },
    ];
  });
  return supplies.some(({ percent }) => percent !== null) ? supplies : markersOf(attributes);
}

function markersOf(attributes: Attributes): Supply[] {
  const colours = allStrings(attributes, 'marker-colors');
  const levels = (attributes['marker-levels'] ?? []).flatMap((one) => (one.tag === 'integer' ? [one.value] : []));
  return allStrings(attributes, 'marker-names')
    .slice(0, MOST)
    .map((name, at) => ({
      name: nameOf(name),
      colour: colourOf(colours[at] ?? ''),
      percent: percentOf(`${levels[at]}`, '100'),
    }));
}

const nameOf = (name: string): string => name.slice(0, LONGEST_NAME).toWellFormed();

/** Levels below zero mean that it is not measured (RFC 3805, prtMarkerSuppliesLevel). */
function percentOf(level: string | undefined, capacity: string | undefined): number | null {
  const [left, all] = [Number(level), Number(capacity)];
  if (!Number.isFinite(left) || !Number.isFinite(all) || left < 0 || all <= 0) return null;
  return Math.min(100, Math.round((100 * left) / all));
}

const COLOURS: Readonly<Record<string, string>> = {
  black: '#1f2933',
  cyan: '#1590b4',
  magenta: '#b83280',
  yellow: '#d9a514',
};

function colourOf(told: string): string | null {
  if (/^#[0-9a-f]{6}$/i.test(told)) return told.toLowerCase();
  return COLOURS[told.toLowerCase()] ?? null;
}
