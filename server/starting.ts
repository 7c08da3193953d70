import type { AddressInfo } from 'node:net';
import type { FastifyInstance } from 'fastify';
import type { Config } from './config';

/** What keeps the server from starting, in words for whoever starts it, with the setting that changes it. */
export function wordsForStart(
  error: unknown,
  { port, host, dataFile }: Pick<Config, 'port' | 'host' | 'dataFile'>,
): string {
  const { code = '', message } = error as { code?: string; message?: string };
  return wordsForPort(code, message ?? '', { port, host }) ?? wordsForFile(code, dataFile) ?? message ?? String(error);
}

function wordsForPort(
  code: string,
  message: string,
  { port, host }: Pick<Config, 'port' | 'host'>,
): string | undefined {
  if (code === 'EADDRINUSE')
    return `Port ${port} is in use already: another program, or another Avrelle, listens there. End it, or choose another port with AVRELLE_PORT.`;
  if (code === 'EACCES' && /listen/.test(message))
    return `Port ${port} may be used by the system alone. Choose one above 1023 with AVRELLE_PORT.`;
  if (code === 'EADDRNOTAVAIL' || code === 'ENOTFOUND')
    return `This computer has no address “${host}”. Set AVRELLE_HOST to one that it has, as 127.0.0.1 or 0.0.0.0.`;
  return undefined;
}

const CANNOT_OPEN: ReadonlySet<string> = new Set(['SQLITE_CANTOPEN', 'EACCES', 'EROFS', 'ENOTDIR', 'EEXIST']);

function wordsForFile(code: string, dataFile: string): string | undefined {
  if (CANNOT_OPEN.has(code))
    return `The data file ${dataFile} cannot be opened or made (${code}). Make its folder writable, or name another with AVRELLE_DATA.`;
  if (code === 'SQLITE_NOTADB' || code === 'SQLITE_CORRUPT')
    return `${dataFile} is no intact database of Avrelle (${code}). Name another with AVRELLE_DATA, or restore a backup.`;
  if (code.startsWith('SQLITE_BUSY'))
    return `Another program holds the data file ${dataFile}. End it, or name another file with AVRELLE_DATA.`;
  if (code.startsWith('SQLITE_READONLY'))
    return `The data file ${dataFile} may be read only. Make it writable, or name another with AVRELLE_DATA.`;
  return undefined;
}

/** Listens on the port, or where it is taken and `further` is given, on one of so many after it. Gives the one it is. */
export async function listen(
  app: FastifyInstance,
  { port, host }: Pick<Config, 'port' | 'host'>,
  further = 0,
): Promise<number> {
  for (let tried = port; ; tried++) {
    try {
      await app.listen({ port: tried, host });
      return (app.server.address() as AddressInfo).port;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE' || tried >= port + further) throw error;
    }
  }
}

/** Runs what starts a program; what goes wrong is said in a line, without a trace. */
export async function start(
  config: Pick<Config, 'port' | 'host' | 'dataFile'>,
  work: () => Promise<void>,
): Promise<void> {
  try {
    await work();
  } catch (error) {
    const words = wordsForStart(error, config);
    console.error(words === (error as Error)?.message ? error : words);
    process.exit(1);
  }
}
