/** A folder for each machine, in the place of the line programs are sent to it on. */
import { mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { safeName } from '@tidypath/core';

/**
 * Puts programs into a machine's folder, each whole or not at all; one of the same name gives way.
 * @returns the folder, as people are told it
 */
export function sendTo(folder: string, machine: string, programs: { fileName: string; bytes: Buffer }[]): string {
  const name = join('machines', safeName(machine));
  const place = join(folder, name);
  mkdirSync(place, { recursive: true });
  for (const { fileName, bytes } of programs) {
    const file = join(place, basename(fileName));
    writeFileSync(`${file}.part`, bytes, { flush: true });
    renameSync(`${file}.part`, file);
  }
  return name;
}
