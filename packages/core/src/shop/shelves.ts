import { Finding, finding, hasStop } from '../quantity/finding';
import { checked } from '../quantity/validate';
import { Bar } from './bar';
import { barFindings, holderFindings, machineFindings, materialFindings, toolFindings } from './check';
import { Controller } from './controller';
import { CONTROLLERS } from './controllers';
import { Holder } from './holder';
import { BARS, HOLDERS, MACHINES, MATERIALS, TOOLS } from './library';
import { Machine } from '../machine/machine';
import { Material } from './material';
import { Recipe } from './recipe';
import { Tool } from './tool';

/** Everything the shop keeps, by shelf. */
export interface ShopItems {
  tools: Tool;
  machines: Machine;
  materials: Material;
  holders: Holder;
  bars: Bar;
  controllers: Controller;
  recipes: Recipe;
}

export type ShelfName = keyof ShopItems;

interface Shelf<T> {
  /** What one of them is called. */
  one: string;
  Item: new () => T;
  /** What it starts with. */
  start: T[];
  findings: (item: T) => Finding[];
}

export const SHELVES: { [K in ShelfName]: Shelf<ShopItems[K]> } = {
  tools: { one: 'tool', Item: Tool, start: TOOLS, findings: toolFindings },
  machines: { one: 'machine', Item: Machine, start: MACHINES, findings: machineFindings },
  materials: { one: 'material', Item: Material, start: MATERIALS, findings: materialFindings },
  holders: { one: 'holder', Item: Holder, start: HOLDERS, findings: holderFindings },
  bars: { one: 'bar', Item: Bar, start: BARS, findings: barFindings },
  controllers: { one: 'controller', Item: Controller, start: CONTROLLERS, findings: () => [] },
  recipes: { one: 'recipe', Item: Recipe, start: [], findings: () => [] },
};

export const SHELF_NAMES = Object.keys(SHELVES) as ShelfName[];

/** A thing on a shelf, with the version a save must name. */
export interface Kept<T> {
  version: number;
  updatedAt: string;
  item: T;
}

/**
 * Checks plain data as something of a shelf: every field, unknown ones refused by name, and what cannot be together.
 * @returns the item when nothing stops it, and all findings
 */
export function readItem<K extends ShelfName>(shelf: K, value: unknown): { item?: ShopItems[K]; findings: Finding[] } {
  const { Item, one, findings: check } = SHELVES[shelf] as Shelf<ShopItems[K]>;
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { findings: [finding('not-an-item', { one })] };
  const fields = checked(Item, value);
  if (fields.length) return { findings: fields };
  const item = value as ShopItems[K];
  const findings = check(item);
  return hasStop(findings) ? { findings } : { item, findings };
}
