import { Situation } from '../src/cutting/suggestion';
import { Machine } from '../src/machine/machine';
import { MATERIALS } from '../src/shop/library';
import { tool } from './parts';

/** A deep, narrow cut, settled and firm, and the feeds careful shops run it at on a mid-size machining centre, mm/min. */
export interface Aim {
  name: string;
  least: number;
  most: number;
  on: (machine: Machine) => Situation;
}

const aim = (
  materialId: string,
  [diameter, flutes, stickOut]: [number, number, number],
  [ap, ae]: [number, number],
  [least, most]: [number, number],
): Aim => {
  const material = MATERIALS.find((m) => m.id === materialId)!;
  const mill = { ...tool(4), diameter, flutes, shankDiameter: diameter, fluteLength: ap + 2, stickOut, ownData: [] };
  return {
    name: `D ${diameter}, ${flutes} flutes, ${ap} × ${ae} mm in ${material.name}`,
    least,
    most,
    on: (machine) => ({ tool: mill, material, machine, ae, ap, grip: 'firm', leaves: 0.2 }),
  };
};

export const AIMS: Aim[] = [
  aim('steel-alloy', [12, 5, 30], [24, 1.2], [1500, 3500]),
  aim('steel-low', [10, 5, 30], [20, 1], [2500, 6000]),
  aim('stainless', [6, 4, 20], [12, 0.5], [500, 1400]),
];
