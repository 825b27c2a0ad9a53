import type { Say } from './say';

/** How serious a finding is: `stop` forbids release, `care` wants a look, `note` is for information. */
export type Level = 'stop' | 'care' | 'note';

/** A place by its coordinates, mm; in part or work coordinates, as its finding says. */
export interface Spot {
  x: number;
  y: number;
  z?: number;
}

/** A finding as its table knows it: how serious it is, and how it is put into words from its data (lengths in mm). */
export interface Words<D> {
  level: Level;
  message(data: D, say: Say): string;
  remedy(data: D, say: Say): string;
}

type Text<D> = string | ((data: D, say: Say) => string);

const text = <D>(t: Text<D>) => (typeof t === 'string' ? () => t : t);

const saidAt =
  (level: Level) =>
  <D extends object = object>(message: Text<D>, remedy: Text<D>): Words<D> => ({
    level,
    message: text(message),
    remedy: text(remedy),
  });

export const stop = saidAt('stop');
export const care = saidAt('care');
export const note = saidAt('note');
