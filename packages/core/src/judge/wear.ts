/** How much of its edges each tool uses in a program. */
import { cuttingDiameter } from '../cutting/cut';
import { LifeReference, edgeLife, lifeReference } from '../cutting/edge-life';
import { MOVE, Motions } from '../path/motions';
import { Material } from '../shop/material';
import { Tool, isAxial, isBeam } from '../shop/tool';
import { Samples } from '../simulate/samples';

/** What one tool wears in a run. */
export interface Wear {
  tool: number;
  /** Share of the life of one edge. */
  share: number;
  /** Minutes in cut. */
  minutes: number;
}

/** Share of an edge each tool uses: every stretch in cut counts by the life its speed, chip and contact leave. Estimates. */
export function wearOf(samples: Samples, m: Motions, tools: ReadonlyMap<number, Tool>, material: Material): Wear[] {
  const worn = new Map<number, Wear>();
  const references = new Map<Tool, LifeReference>();
  const referenceOf = (tool: Tool): LifeReference => {
    const known = references.get(tool) ?? lifeReference(tool, material);
    references.set(tool, known);
    return known;
  };
  for (let i = 0; i < samples.count; i++) {
    const motion = samples.motion[i];
    const tool = tools.get(m.tool[motion]);
    const rpm = m.rpm[motion];
    if (!tool || isBeam(tool) || samples.chip[i] <= 0 || rpm <= 0 || m.type[motion] === MOVE.rapid) continue;
    const minutes = samples.seconds[i] / 60;
    const speed = (Math.PI * cuttingDiameter(tool, samples.depth[i]) * rpm) / 1000;
    const milling = isAxial(tool) ? {} : { chip: samples.chip[i], angle: samples.engagement[i] };
    const life = edgeLife(referenceOf(tool), { speed, ...milling });
    const known = worn.get(tool.number) ?? { tool: tool.number, share: 0, minutes: 0 };
    worn.set(tool.number, {
      tool: tool.number,
      share: known.share + minutes / life,
      minutes: known.minutes + minutes,
    });
  }
  return [...worn.values()];
}
