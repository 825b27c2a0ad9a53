/** A small job for every kind of operation: something it can work on, opened before it where it needs a hole that is there. */
import fc from 'fast-check';
import { newFeature } from '../src/part/plate/new';
import { Job } from '../src/document/job';
import { Feature, Shape } from '../src/part/plate/feature';
import { ParameterInfo, parametersOf } from '../src/quantity/parameter';
import { MACHINES } from '../src/shop/library';
import { Tool, isBeam } from '../src/shop/tool';
import { OperationKind } from '../src/operation/operation';
import { jobWith, withOperation, withStock } from './jobs';
import { plate, tool } from './parts';

type Params = Record<string, unknown>;

interface Work {
  shape: Shape;
  more: Partial<Feature>;
  tool: Tool;
  /** Where it is more than the one thing. */
  targets?: string[];
  /** What makes the hole that it only sizes or threads. */
  opener?: { kind: string; tool: Tool; params: Params };
}

const room = { type: 'rectangle' as const, width: 24, height: 18, radius: 4 };
const round = (diameter: number) => ({ type: 'round' as const, diameter });
const hole = (diameter: number, number: number, more: Partial<Feature> = {}): Work => ({
  shape: round(diameter),
  more: { meaning: 'hole', through: true, ...more },
  tool: tool(number),
});

/** Through the plate and the stock below it, mm below the part. */
const THROUGH = { breakthrough: 6.5 };
const drilled = (t: Tool) => ({ kind: 'drill', tool: t, params: THROUGH });
const bored = (wallAllowance: number) => ({
  kind: 'helical-bore',
  tool: tool(7),
  params: { ...THROUGH, wallAllowance },
});

const WORK: Record<string, Work> = {
  face: { shape: round(10), more: { meaning: 'ignore' }, tool: tool(1) },
  clear: { shape: room, more: {}, tool: tool(7) },
  pocket: { shape: room, more: {}, tool: tool(7) },
  slot: { shape: { type: 'slot', length: 30, width: 8 }, more: {}, tool: tool(7) },
  contour: { shape: { type: 'rectangle', width: 30, height: 20, radius: 4 }, more: {}, tool: tool(7) },
  drill: hole(5, 15),
  'helical-bore': hole(14, 7),
  counterbore: hole(5, 7, { counterbore: { diameter: 9, depth: 3 } }),
  countersink: hole(5, 13),
  ream: { ...hole(6, 35), opener: drilled({ ...tool(16), id: 'under-size', name: '5.8 mm drill', diameter: 5.8 }) },
  bore: { ...hole(24, 36), opener: bored(0.25) },
  tap: { ...hole(4.2, 37, { thread: 'M5' }), opener: drilled(tool(14)) },
  'thread-mill': { ...hole(18.9, 40, { thread: 'M20x1' }), opener: bored(0) },
  chamfer: { shape: round(24), more: { edge: { form: 'chamfer', size: 0.5, angle: 90 } }, tool: tool(22) },
  'round-edge': { shape: round(24), more: { edge: { form: 'round', size: 3, angle: 90 } }, tool: tool(30) },
  engrave: { shape: { type: 'text', text: 'B8', height: 8 }, more: { meaning: 'line' }, tool: tool(31) },
  'cut-out': { ...hole(20, 43), targets: ['f1', 'f2'] },
};

/** A plate with one thing on it and the operation that works on it, the last of its route. */
export function jobForKind(kind: OperationKind, params: Params = {}): Job {
  const { shape, more, tool: cutter, targets = ['f2'], opener } = WORK[kind.kind];
  const outline = plate();
  const feature = newFeature([outline], more.meaning ?? 'pocket', 'Work', shape, { x: 40, y: 25, depth: 4, ...more });
  const mill = withStock(jobWith(undefined, {}, 8), { top: 0.5 });
  const beam = MACHINES.find((m) => m.kind === 'sheet cutter')!;
  const job = isBeam(cutter) ? { ...mill, machine: beam, controllerId: beam.controllerId } : mill;
  const drawn = { ...job, part: { ...job.part, features: [outline, feature] } };
  const opened = opener ? withOperation(drawn, opener.kind, ['f2'], opener.tool, opener.params) : drawn;
  return withOperation(opened, kind.kind, kind.works.length ? targets : [], cutter, params);
}

/** Values a person might give: inside the range, lengths no larger than the work. */
function valuesOf(info: ParameterInfo): fc.Arbitrary<unknown> {
  if (info.choices) return fc.constantFrom(...info.choices);
  if (info.unit === undefined) return info.max ? fc.constantFrom('', '20', '5 30.5, 80') : fc.boolean();
  const [min, max] = [info.min!, info.max!];
  if (info.unit === 'count') return fc.integer({ min, max: Math.min(max, 4) });
  const least = info.unit === 'length' ? Math.max(min, Math.min(0.4, max)) : min;
  return fc.double({ min: least, max: Math.min(max, info.unit === 'length' ? 12 : max), noNaN: true });
}

/** Any of a kind's values; those left out are its own. */
export const anyParams = (kind: OperationKind): fc.Arbitrary<Params> =>
  fc.record(Object.fromEntries(Object.entries(parametersOf(kind.Params)).map(([key, info]) => [key, valuesOf(info)])), {
    requiredKeys: [],
  });
