import type { PrinterAddress } from './access';
import { askPrinter } from './client';
import { IppError } from './ipp-error';
import { firstNumber, firstString, groupOf, nameValue, OPERATIONS, STATUS, type Attributes } from './message';
import type { SendInput, SentJob } from './send-input';
import type { ShippedDocument } from './shipment';

type Validated<Document extends Pick<ShippedDocument, 'attributes'>> = Pick<
  SendInput<Document>,
  'address' | 'printer' | 'shipment' | 'userName' | 'signal'
>;

/**
 * Asks whether the printer would take every job of a shipment just as it is (Validate-Job, RFC 8011, 4.2.3), so that what
 * it would leave out is known before any paper moves. What it does not take and nothing hangs on is left out.
 *
 * @returns the jobs as it takes them
 * @throws IppError naming the attributes it refuses or would ignore
 */
export async function validateJobs<Document extends Pick<ShippedDocument, 'attributes'>>(
  input: Validated<Document>,
): Promise<SentJob<Document>[]> {
  const { shipment, printer } = input;
  const { operations } = printer.jobs;
  if (operations.length > 0 && !operations.includes(OPERATIONS.validateJob)) return [...shipment.jobs];
  const taken = new Map<string, Attributes>();
  const jobs: SentJob<Document>[] = [];
  for (const job of shipment.jobs) {
    const key = JSON.stringify(job.attributes);
    const attributes = taken.get(key) ?? (await validated(input, job.attributes));
    taken.set(key, attributes);
    jobs.push({ ...job, attributes });
  }
  return jobs;
}

/** @returns the attributes without those that are not taken and nothing hangs on */
async function validated(
  { address, userName, signal }: Pick<SendInput, 'address' | 'userName' | 'signal'>,
  attributes: Attributes,
): Promise<Attributes> {
  for (let asked = attributes; ;) {
    const { names: refused, error } = await unsupportedOf(address, {
      operationAttributes: { 'requesting-user-name': [nameValue(userName)] },
      groups: [{ tag: 'job', attributes: asked }],
      ...(signal ? { signal } : {}),
    });
    if (refused.length === 0) return asked;
    const needed = refused.filter((name) => !(name in asked) || hangsOn(name, asked));
    if (needed.length > 0)
      throw error ?? new IppError(`the printer would ignore ${needed.join(', ')}`, STATUS.okIgnoredOrSubstituted);
    asked = Object.fromEntries(Object.entries(asked).filter(([name]) => !refused.includes(name)));
  }
}

async function unsupportedOf(
  address: PrinterAddress,
  ask: Omit<Parameters<typeof askPrinter>[1], 'operation'>,
): Promise<{ readonly names: readonly string[]; readonly error: IppError | null }> {
  try {
    const answer = await askPrinter(address, { operation: OPERATIONS.validateJob, ...ask });
    return { names: Object.keys(groupOf(answer, 'unsupported')), error: null };
  } catch (error) {
    const isRefused = error instanceof IppError && error.status === STATUS.attributesOrValuesNotSupported;
    if (!isRefused || error.unsupported.length === 0) throw error;
    return { names: error.unsupported, error };
  }
}

/** Whether paper would look otherwise without it: the file is at the paper's size, and one copy is one. */
function hangsOn(name: string, attributes: Attributes): boolean {
  switch (name) {
    case 'print-scaling':
    case 'print-quality':
      return false;
    case 'print-color-mode':
      return firstString(attributes, name) === 'monochrome';
    case 'copies':
    case 'sheet-collate':
    case 'multiple-document-handling':
      return (firstNumber(attributes, 'copies') ?? 1) > 1;
    default:
      return true;
  }
}
