import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { readPrinter } from '@foglio/core/validate';
import { createApp } from '../src/app';
import { Archive } from '../src/archive';
import { Machine } from '../src/machine';
import { listen } from '../../../packages/ipp/test/second-opinion';

export const PROFILE = readPrinter({
  name: 'Test office',
  margin: 4.2,
  trays: [
    {
      id: 'tray-1',
      name: 'Tray 1',
      size: 'iso_a4_210x297mm',
      type: 'stationery',
      weight: 80,
      capacity: 500,
      loaded: 500,
    },
    { id: 'tray-2', name: 'Tray 2', size: 'iso_a4_210x297mm', capacity: 250, loaded: 4 },
    { id: 'tray-4', name: 'Tray 4', size: 'iso_a3_297x420mm', capacity: 250, loaded: 250 },
  ],
  sidesPerMinute: 30,
  jobs: { overrides: ['media-col', 'sides'], documents: false },
});

export interface Running {
  readonly machine: Machine;
  /** Past a second opinion, which reads all that is sent and answered. */
  readonly uri: string;
  /** The printer itself. */
  readonly direct: string;
  readonly panel: string;
  readonly stop: () => Promise<void>;
}

/** A printer of a folder, with what is kept there. */
export async function switchOn(folder: string, sheetMs = 1): Promise<Running> {
  const archive = new Archive(folder);
  const machine = new Machine({ profile: PROFILE, archive, sheetMs });
  await machine.start();
  const server: Server = createServer(createApp({ machine, archive }));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  const direct = `ipp://127.0.0.1:${port}/ipp/print`;
  const listener = await listen(direct);
  const stop = async (): Promise<void> => {
    server.close();
    server.closeAllConnections();
    await machine.shutDown();
    listener.close();
  };
  return { machine, uri: listener.uri, direct, panel: `http://127.0.0.1:${port}/panel`, stop };
}
