import ipp, { type Parsed, type Printer } from 'ipp';
import { expect } from './world';

/** A job as a program is told of it. */
export interface JobTold {
  readonly 'job-id': number;
  readonly 'job-state': string;
  readonly [attribute: string]: unknown;
}

/** A program that prints: by the client of the package `ipp`, which knows nothing of Foglio. */
export class JobPrinter {
  private readonly printer: Printer;

  constructor(uri: string) {
    this.printer = new ipp.Printer(uri.replace('ipp:', 'http:'));
  }

  private ask(operation: string, groups: { readonly [group: string]: unknown } | null): Promise<Parsed> {
    return new Promise((resolve, reject) => {
      this.printer.execute(operation, groups, (error, answer) => {
        if (error) reject(error);
        else if (!String(answer.statusCode).startsWith('successful')) reject(new Error(JSON.stringify(answer)));
        else resolve(answer);
      });
    });
  }

  async attributes(): Promise<Readonly<Record<string, unknown>>> {
    return (await this.ask('Get-Printer-Attributes', null))['printer-attributes-tag'] as Record<string, unknown>;
  }

  async print(
    { name, user }: { readonly name: string; readonly user: string },
    data: Buffer,
    wishes: Readonly<Record<string, unknown>> = {},
    format = 'application/pdf',
  ): Promise<JobTold> {
    const operation = { 'requesting-user-name': user, 'job-name': name, 'document-format': format };
    const groups = { 'operation-attributes-tag': operation, 'job-attributes-tag': wishes, data };
    return (await this.ask('Print-Job', groups))['job-attributes-tag'] as JobTold;
  }

  async job(id: number): Promise<JobTold> {
    const about = { 'operation-attributes-tag': { 'job-id': id } };
    return (await this.ask('Get-Job-Attributes', about))['job-attributes-tag'] as JobTold;
  }

  async cancel(id: number): Promise<void> {
    await this.ask('Cancel-Job', { 'operation-attributes-tag': { 'job-id': id } });
  }

  /** Waits until a job is in a state. */
  async until(id: number, state: string): Promise<JobTold> {
    await expect(async () => {
      expect((await this.job(id))['job-state']).toBe(state);
    }).toPass({ timeout: 60_000 });
    return this.job(id);
  }
}
