import { IsIn, IsInt, IsNumber, Max, Min } from 'class-validator';
import { Point } from '../geometry/plane/point';
import { COPY_ORDERS } from './copies';

/** The same work in several vises at once, each with a work offset of its own. */
export class Stations {
  @IsInt() @Min(2) @Max(6) count!: number;
  /** From one to the next, mm; where they really stand is measured at the machine. */
  @IsNumber() @Min(-5000) @Max(5000) dx!: number;
  @IsNumber() @Min(-5000) @Max(5000) dy!: number;
  /** Whether each operation is done in all of them before the next, or all of them in one before the next. */
  @IsIn([...COPY_ORDERS]) order!: (typeof COPY_ORDERS)[number];
}

type Stationed = { stations?: Stations };

/** How far each station lies from the first. */
export const placesOfStations = ({ stations }: Stationed): Point[] =>
  Array.from({ length: stations?.count ?? 1 }, (_, k) => ({
    x: k * (stations?.dx ?? 0),
    y: k * (stations?.dy ?? 0),
  }));

/** The work offset of each: that of the setup, and those that follow it. */
export const offsetsOf = ({ workOffset, stations }: Stationed & { workOffset: string }): string[] =>
  placesOfStations({ stations }).map((_, k) => `G${Number(workOffset.slice(1)) + k}`);
