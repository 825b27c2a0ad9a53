import { format } from 'date-fns/format';
import { ReleaseRow, ReleaseState, TaskStep, shortRoot, stateWords } from '@tidypath/core';

/** A shape for each way a release may stand; colour only helps. */
export const STATE_MARK: Record<ReleaseState['state'], string> = {
  released: '✓',
  approved: '✓',
  waiting: '◌',
  refused: '▲',
  void: '▲',
};

export const STATE_TONE: Record<ReleaseState['state'], 'ink' | 'care' | 'danger'> = {
  released: 'ink',
  approved: 'ink',
  waiting: 'care',
  refused: 'danger',
  void: 'danger',
};

const upper = (words: string) => words.replace(/^./, (c) => c.toUpperCase());

/** How a release stands, with its shape. */
export const stateText = (state: ReleaseState): string => `${STATE_MARK[state.state]} ${upper(stateWords(state))}`;

/** "Release 3 · 09DCC099". */
export const releaseName = ({ number, root }: Pick<ReleaseRow, 'number' | 'root'>): string =>
  `Release ${number} · ${shortRoot(root)}`;

export const dayText = (at: string): string => format(new Date(at), 'd MMM yyyy, HH:mm');

/** When it was made, and by whom. */
export const madeText = ({ at, who }: Pick<ReleaseRow, 'at' | 'who'>): string =>
  [dayText(at), who && `by ${who}`].filter(Boolean).join(' ');

/** How far the server is. */
export function stepText(step: TaskStep): string {
  if ('waiting' in step) return step.waiting > 0 ? `Waits for ${step.waiting} before it` : 'The server begins';
  if ('planning' in step) return `Planning “${step.planning.name}”, ${step.planning.index + 1} of ${step.planning.of}`;
  return `Proving, ${Math.round(100 * step.proving)} %`;
}
