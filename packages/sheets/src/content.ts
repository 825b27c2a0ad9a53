/** What a sheet says, in the order it says it; pens and pages decide nothing of that. */
import type { Scene } from './scene';

export type Cell = string | Scene;

export type Block =
  | { kind: 'heading'; text: string }
  | { kind: 'text'; text: string; quiet?: boolean }
  | { kind: 'picture'; scene: Scene; told: string }
  | {
      kind: 'table';
      head: string[];
      rows: Cell[][];
      /** Share of the width of each column. */
      shares: number[];
    }
  /** Things to tick. */
  | { kind: 'checks'; items: { text: string; done?: string }[] }
  /** Room to write in, with what belongs there. */
  | { kind: 'blanks'; names: string[]; lines: number };

export interface Sheet {
  title: string;
  /** In the head of every page. */
  subtitle: string;
  /** Beside the title: what it is about, by name. */
  facts: [name: string, value: string][];
  /** A code to be read by a phone, and what it says. */
  code?: { scene: Scene; text: string };
  blocks: Block[];
}

export const heading = (text: string): Block => ({ kind: 'heading', text });
export const text = (said: string, quiet = false): Block => ({ kind: 'text', text: said, quiet });
/** A table, and nothing where it would have no rows. */
export const table = (head: string[], shares: number[], rows: Cell[][]): Block[] =>
  rows.length > 0 ? [{ kind: 'table', head, shares, rows }] : [];
