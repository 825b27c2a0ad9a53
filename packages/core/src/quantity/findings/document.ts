import { care, note, stop } from './words';

/** Findings of documents: files, fields, what is stored. */
export const DOCUMENT = {
  'stored-unread': stop<{ one: string; id: string; first: string; more: number }>(
    (d) =>
      `The ${d.one} “${d.id}” was stored by another version and cannot be read (${d.first}${d.more ? `, and ${d.more} more` : ''})`,
    'It stays as it is stored; put it in anew, or open this data with the version that wrote it',
  ),
  'unknown-operation': stop<{ operation: string; kind: string }>(
    (d) => `“${d.operation}” is of a kind nobody knows: ${d.kind}`,
    'Delete it, or open the file with the version that wrote it',
  ),
  'no-version': stop('The file does not say which format version it is', 'Choose a job file written by Tidy Path'),
  'newer-version': stop<{ version: number; known: number }>(
    (d) => `The file is of format version ${d.version}; this program knows up to ${d.known}`,
    'Open it with a newer Tidy Path',
  ),
  'old-version': stop<{ version: number }>(
    (d) => `Format version ${d.version} was never released`,
    'Choose a job file written by Tidy Path',
  ),
  'not-a-job': stop('This is not a job file', 'Choose a file that Tidy Path exported'),
  'not-json': stop<{ line: number }>(
    (d) => `The file is broken at line ${d.line}`,
    'Choose an unbroken job file; the jobs you have are untouched',
  ),
  'package-unreadable': stop('The ZIP is broken', 'Choose an unbroken file; the jobs you have are untouched'),
  'package-without-job': stop('There is no job.json in this ZIP', 'Choose a ZIP that Tidy Path exported'),
  'package-large': stop<{ each: number; all: number }>(
    (d) => `The ZIP unfolds to more than ${d.each} MB in one file, or ${d.all} MB in all`,
    'Choose a ZIP that Tidy Path exported',
  ),
  'package-damaged': care<{ sha256: string }>(
    (d) => `The file ${d.sha256.slice(0, 12)}… in the ZIP is not what its name says: it was left out`,
    'Take the job out again where it came from',
  ),
  'package-extra': note<{ name: string }>(
    (d) => `“${d.name}” in the ZIP belongs to no job and was left out`,
    'Nothing is to be done where that is meant',
  ),
  'file-missing': stop<{ name: string; sha256: string }>(
    (d) => `The file “${d.name}” is not here (SHA-256 ${d.sha256.slice(0, 12)}…)`,
    'Open it again where it is used, or take in the job with its files (ZIP)',
  ),
  'unknown-field': stop<{ field: string }>(
    (d) => `There is a field “${d.field}” that nobody knows`,
    'Take it out, or open the file with the version that wrote it',
  ),
  'bad-field': stop<{ field: string; why: string }>((d) => `${d.field}: ${d.why}`, 'Correct this value'),
  'too-deep': stop<{ deepest: number }>(
    (d) => `Values lie more than ${d.deepest} deep in each other`,
    'Choose another file, or one that holds less',
  ),
  'too-many-fields': stop<{ count: number; most: number }>(
    (d) => `An object has ${d.count} fields; none that is known has more than ${d.most}`,
    'Choose another file, or take out what does not belong there',
  ),
  'list-too-long': stop<{ field: string; count: number; most: number }>(
    (d) => `${d.field} holds ${d.count} entries; at most ${d.most} are taken`,
    'Divide it',
  ),
  'list-in-list': stop<{ field: string }>(
    (d) => `${d.field} holds a list where one of its entries should stand`,
    'Correct the file, or take it out again where it came from',
  ),
  'reserved-field': stop<{ field: string }>(
    (d) => `A field is called “${d.field}”, which no document may hold`,
    'Take it out of the file',
  ),
  'id-twice': stop<{ field: string; id: string }>(
    (d) => `Two of ${d.field} are called “${d.id}”: they could not be told apart`,
    'Give one of them another id',
  ),
  'too-many-values': stop<{ millions: number }>(
    (d) => `The file holds more than ${d.millions} million values`,
    'Choose another file, or one that holds less',
  ),
};
