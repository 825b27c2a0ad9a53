import { Situation } from '../cutting/suggestion';
import { Tool } from '../shop/tool';
import { BiteOf } from '../operation/operation';
import { Job } from '../document/job';

/** What a tool's speeds in a job are worked out for. */
export const situationOf = (job: Job, tool: Tool, bite: BiteOf): Situation => ({
  tool,
  material: job.material,
  machine: job.machine,
  boldness: job.boldness,
  unit: job.unit,
  ...bite,
});
