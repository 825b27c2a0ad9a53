import { Machine } from '../../machine/machine';
import { Material } from '../material';
import { MACHINES } from './machines';
import { HANDBOOK, MATERIALS } from './materials';

/** g/cm³ of a material: its own, else that of the starting material it came from; undefined where neither knows. */
export const densityOf = ({ id, density }: Material): number | undefined =>
  density || MATERIALS.find((m) => m.id === id)?.density;

export const SHOP_VALUE = 'The shop’s own value';

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Where one number of a material comes from: the handbook's start, or the shop. */
export function originOf(material: Material, key: keyof Material): string {
  const start = MATERIALS.find((m) => m.id === material.id);
  return start && same(start[key], material[key]) ? HANDBOOK : SHOP_VALUE;
}

/** The starting value of a material's number, where it has one that differs from what stands there now. */
export function startOf<T extends Material | Machine, K extends keyof T>(item: T, key: K): T[K] | undefined {
  const start = ([...MATERIALS, ...MACHINES] as (Material | Machine)[]).find((m) => m.id === item.id) as T | undefined;
  return start && !same(start[key], item[key]) ? start[key] : undefined;
}
