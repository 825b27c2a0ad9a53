/** Sheets of a release, as they are on the day they are asked for. */
import { APPROVED_WORDS, ReleaseView, putAtHand, rowOf, standing } from '@tidypath/core';
import { Paper, ToPrint, firstPieceSheet, htmlOf, setupSheet } from '@tidypath/sheets';
import { pdfOf } from '@tidypath/sheets/pdf';
import { filesFor } from '../compute/telling';
import type { FileStore } from '../db/files';
import { setupOf } from './store';

export const PAPER_KINDS = ['sheet', 'first-piece'] as const;
export type PaperKind = (typeof PAPER_KINDS)[number];

/** Who approved it, in words; nothing where nobody has. */
function approvedBy({ state, answers }: ReleaseView): string | undefined {
  if (state.state !== 'approved') return undefined;
  const { remark, checks } = answers[answers.length - 1];
  const how = APPROVED_WORDS[state.singleBlock ? 'approve for single block' : 'approve'];
  return `${how} by ${state.by}, ${state.at.slice(0, 16).replace('T', ' ')} UTC, who looked at ${rowOf(checks)}${remark ? `: ${remark}` : ''}`;
}

function toPrint(view: ReleaseView, address: string): ToPrint {
  const { body, number, at, who, ticks } = view;
  const { job, proof } = body;
  const release = { ...body, number, at, who, ticks, approved: approvedBy(view) };
  return { job, setup: setupOf(body), proof, release, address: address || undefined };
}

/**
 * A sheet of a release.
 * @param form a page, or a PDF on a paper
 * @param address under which phones reach this server, where they do
 */
export function paperOf(
  view: ReleaseView,
  kind: PaperKind,
  form: 'html' | Paper,
  address: string,
  files: FileStore,
): string | Uint8Array {
  filesFor(files, view.body.job).forEach((bytes) => void putAtHand(bytes));
  const of = toPrint(view, address);
  const first = standing(view.sizes).filter((s) => s.part === 1);
  const sheet = kind === 'sheet' ? setupSheet(of) : firstPieceSheet(of, first);
  return form === 'html' ? htmlOf(sheet) : pdfOf(sheet, form, new Date(view.at));
}
