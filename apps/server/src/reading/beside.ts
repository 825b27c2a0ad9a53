/** Large bodies are checked beside the event loop, so that nobody else waits for them. */
import { join } from 'node:path';
import type { Request } from 'express';
import { Piscina } from 'piscina';
import { misshapen } from '@tidypath/core';
import { isGood, remember } from '../db/carry';
import { READ } from './read';

/** Bodies up to so many bytes are checked at once: it takes less than handing them over. */
const SMALL = 100_000;
/** A worker nobody needed for so long ends, ms. */
const IDLE = 30_000;

const IS_BUNDLED = !__filename.endsWith('.ts');

let pool: Piscina | undefined;
const workers = () =>
  (pool ??= new Piscina({
    filename: join(__dirname, IS_BUNDLED ? 'read.cjs' : 'read.ts'),
    execArgv: IS_BUNDLED ? [] : ['--import', require.resolve('tsx')],
    minThreads: 0,
    maxThreads: 2,
    idleTimeout: IDLE,
  }));

/** Reads what came with a request; whatever lies too deep to be handed over is refused at once. */
export async function readBeside<W extends keyof typeof READ>(
  req: Request,
  what: W,
  value: Parameters<(typeof READ)[W]>[0],
): Promise<ReturnType<(typeof READ)[W]>> {
  const isSmall = Number(req.get('content-length') ?? Infinity) <= SMALL;
  if (isSmall || misshapen(value)) return READ[what](value as never) as ReturnType<(typeof READ)[W]>;
  return workers().run({ what, value }) as Promise<ReturnType<(typeof READ)[W]>>;
}

/** Looks at a long document nobody has looked at since the start, so that handing it out need not. */
export async function lookBefore(document: string | undefined): Promise<void> {
  if (!document || document.length <= SMALL || isGood(document)) return;
  if (await workers().run({ what: 'stored', value: document })) remember(document);
}

/** Ends what is left of them. */
export const endReading = async (): Promise<void> => {
  await pool?.destroy();
  pool = undefined;
};
