import { createServer, type Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import type { Pairing } from '@fendrix/contract';
import type { Logger } from 'pino';
import { AppError } from '../errors.js';
import { type DayStores, readRevision } from './dayAtTable.js';
import { createPairedDevices, type PairedDevices } from './pairing.js';
import { createSetSideApp } from './setSideApp.js';

/** The day of a job on phones and tablets of the network: off until it is switched on. */
export interface SetSide {
  /** Opens the network address if it is not open yet, and makes a new code for a job. */
  open(job: string): Promise<void>;
  /** Closes the address and throws all devices out. */
  close(): Promise<void>;
  status(job: string): Promise<Pairing>;
  throwOut(device: string): void;
}

export interface SetSideOptions {
  stores: DayStores;
  log: Logger;
  webRoot?: string;
  /** Address to listen at; all of the machine as 0.0.0.0. */
  host: string;
  /** 0 takes any that is free. */
  port: number;
  devices?: PairedDevices;
}

export function createSetSide({
  stores,
  log,
  webRoot,
  host,
  port,
  devices = createPairedDevices(),
}: SetSideOptions): SetSide {
  let server: Server | null = null;
  // Filled as soon as the port is known.
  const hosts: string[] = [];
  const origins: string[] = [];

  /** Where the network finds this machine, by number. */
  const names = (): string[] =>
    host !== '0.0.0.0'
      ? [host]
      : Object.values(networkInterfaces())
          .flatMap((own) => own ?? [])
          .filter(({ family, internal }) => family === 'IPv4' && !internal)
          .map(({ address }) => address);

  async function listen(): Promise<void> {
    const app = createSetSideApp({
      stores,
      devices,
      log,
      hosts,
      origins,
      ...(webRoot === undefined ? {} : { webRoot }),
    });
    const opened = createServer(app.callback());
    await new Promise<void>((resolve, reject) => {
      opened.once('error', reject);
      opened.listen(port, host, resolve);
    }).catch((error: NodeJS.ErrnoException) => {
      log.error({ err: error }, 'the set side cannot listen');
      throw new AppError('unavailable', `Port ${port} for phones cannot be opened.`, {
        hint: 'Stop the other program that uses it, or start Fendrix with FENDRIX_SET_SIDE_PORT set to another.',
      });
    });
    const address = opened.address();
    const at = typeof address === 'object' && address ? address.port : port;
    hosts.splice(0, hosts.length, ...names().map((name) => `${name}:${at}`));
    origins.splice(0, origins.length, ...hosts.map((name) => `http://${name}`));
    server = opened;
  }

  return {
    async open(job) {
      await readRevision(stores, job);
      if (!server) await listen();
      devices.newCode(job);
    },
    async close() {
      devices.clear();
      const closing = server;
      server = null;
      if (!closing) return;
      closing.closeAllConnections();
      await new Promise((resolve) => closing.close(resolve));
    },
    async status(job) {
      return {
        on: server !== null,
        addresses: server ? origins.map((origin) => `${origin}/set-side`) : [],
        code: devices.codeOf(job),
        devices: devices.devicesOf(job),
        revision: await readRevision(stores, job),
      };
    },
    throwOut: (device) => devices.throwOut(device),
  };
}
