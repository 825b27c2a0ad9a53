import { alike } from '../machine/axes';
import { HOLDERS } from '../shop/library/holders';
import { MATERIALS } from '../shop/library/materials';
import type { ShelfName } from '../shop/shelves';
import { Corner, StlBuilder } from '../geometry/space/stl';
import { sha256Of } from '../quantity/files';

type Plain = Record<string, unknown>;

const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Carries an object forward; anything else stays as it is, for the check to refuse it by name. */
const each = (value: unknown, step: (old: Plain) => Plain): unknown =>
  Array.isArray(value) ? value.map((v) => each(v, step)) : isPlain(value) ? step(value) : value;

/** Version 1 knew only a holder's width and length; its cylinder is kept. */
function toolFrom1({ holderDiameter, holderLength, ...tool }: Plain): Plain {
  const mill = ['flat', 'bull', 'ball'].includes(String(tool.kind));
  return {
    tipDiameter: 0,
    helix: mill ? 38 : 0,
    pitch: 1,
    leftHand: false,
    overallLength: Number(tool.stickOut) + 30,
    coating: 'none',
    throughCoolant: false,
    edges: 1,
    edgePrice: 0,
    edgeLife: 60,
    lengthOffset: 0,
    diameterOffset: 0,
    ownData: [],
    holder: {
      ...HOLDERS[0],
      id: 'plain',
      name: 'Holder',
      segments: [{ lower: holderDiameter, upper: holderDiameter, length: holderLength }],
    },
    ...tool,
  };
}

/** Version 1 gave a spindle by rated power and largest torque. */
function machineFrom1({ power, torque, ...machine }: Plain): Plain {
  const corner = Math.min(Math.max(1, Math.round((9549 * Number(power)) / Number(torque))), 200_000);
  return { taper: '', hourlyRate: 0, carousel: [], spindle: [{ rpm: corner, kW: power }], ...machine };
}

function materialFrom1(material: Plain): Plain {
  const start = MATERIALS.find((m) => m.id === material.id) ?? MATERIALS[0];
  const { hardness, tappingSpeed, mostFlutes, longChips, ductile, chips } = start;
  return { hardness, tappingSpeed, mostFlutes, longChips, ductile, chips, ...material };
}

/** Values operations got in or after version 2, at what they did without them. */
const FINISHING = { finishLaps: 1, spring: false, overlap: 0, floorGap: 0, finishFeed: 1, finishStart: 0 };
const SINCE_2: Record<string, Plain> = {
  face: { rolledIn: false },
  clear: { ...FINISHING, finish: false, finishStock: 0.2, feedOver: false },
  slot: FINISHING,
  pocket: { ...FINISHING, pattern: 'inside out', rowAngle: 0, smooth: 0 },
  drill: { lessen: 0, hop: 'always clear' },
  contour: {
    passes: 1,
    stepover: 1,
    finishAt: 'full depth',
    spring: false,
    leadForm: 'arc',
    leadAngle: 90,
    corners: 'rolled',
    extendStart: 0,
    extendEnd: 0,
    tabs: 'none',
    tabCount: 4,
    tabWidth: 4,
    tabHeight: 1.5,
    tabPlaces: '',
    compensation: 'worked out',
  },
};

function withSince2({ params, ...operation }: Plain): Plain {
  const since = SINCE_2[String(operation.kind)];
  return { ...operation, params: since && isPlain(params) ? { ...since, ...params } : params };
}

/** Some files of version 3 were written before all of its values were there; tabs were moved on together. */
function operationFrom3(old: Plain): Plain {
  const { params, ...operation } = withSince2(old);
  if (!isPlain(params) || !('tabShift' in params)) return { ...operation, params };
  const { tabShift, ...rest } = params;
  const count = Number(rest.tabCount);
  const at = (i: number) => Math.round((((i + 0.5 + Number(tabShift)) / count) % 1) * 1000) / 10;
  const places = Array.from({ length: count }, (_, i) => at(i)).sort((x, y) => x - y);
  return { ...operation, params: { ...rest, tabPlaces: Number(tabShift) ? places.join(' ') : '' } };
}

const eachOperation = (job: Plain, step: (old: Plain) => Plain): unknown =>
  each(job.setups, (setup) => ({ ...setup, operations: each(setup.operations, step) }));

/** Some materials of version 4 were written before they said what hardness their figures are for. */
function materialFrom4(material: Plain): Plain {
  const brinell = MATERIALS.find((m) => m.id === material.id)?.brinell;
  return brinell ? { brinell, ...material } : material;
}

/** Version 5 gave travel by axis, rapid and acceleration for all of them. */
function machineFrom5({ travel, rapid, acceleration, ...machine }: Plain): Plain {
  if (!isPlain(travel)) return { ...machine, ...(travel !== undefined && { travel }) };
  const [x, y, z] = [travel.x, travel.y, travel.z].map(Number);
  return { ...machine, axes: alike(x, y, z, Number(rapid), Number(acceleration)) };
}

/** A recipe holds what it was worked out for. */
const recipeFrom1 = (recipe: Plain): Plain => ({
  ...recipe,
  tool: each(recipe.tool, (t) => (itemFormat('tools', t) === 1 ? toolFrom1(t) : t)),
  machine: each(recipe.machine, (m) => (itemFormat('machines', m) === 1 ? machineFrom1(m) : m)),
  material: each(recipe.material, (m) => (itemFormat('materials', m) === 1 ? materialFrom1(m) : m)),
});

const ITEMS_FROM_1: Partial<Record<ShelfName, (old: Plain) => Plain>> = {
  tools: toolFrom1,
  machines: machineFrom1,
  materials: materialFrom1,
  recipes: recipeFrom1,
};

const ITEMS_FROM_5: typeof ITEMS_FROM_1 = {
  machines: machineFrom5,
  recipes: (recipe) => ({ ...recipe, machine: each(recipe.machine, machineFrom5) }),
};

const ITEMS_FROM_4: typeof ITEMS_FROM_1 = {
  materials: materialFrom4,
  recipes: (recipe) => ({ ...recipe, material: each(recipe.material, materialFrom4) }),
};

/** The format of something on a shelf that does not say it, by its shape: between the first and the fourth nothing there changed. */
export function itemFormat(shelf: ShelfName, item: Plain): number {
  const parts = shelf === 'recipes' ? [item.tool, item.machine, item.material] : [item];
  const isFirst = (o: unknown) =>
    isPlain(o) && ('holderDiameter' in o || 'torque' in o || ('kc11' in o && !('chips' in o)));
  return parts.some(isFirst) ? 1 : 4;
}

/** Something of a shelf carried forward from the format it was stored in. */
export function carriedItem(shelf: ShelfName, item: Plain, format: number): Plain {
  const since2 = (format === 1 && ITEMS_FROM_1[shelf]?.(item)) || item;
  const since5 = (format < 5 && ITEMS_FROM_4[shelf]?.(since2)) || since2;
  return (format < 6 && ITEMS_FROM_5[shelf]?.(since5)) || since5;
}

/** Nine coordinates of 32 bits a triangle, in base 64, as a file; undefined where the text is damaged. */
function fileFrom4(text: unknown): Uint8Array | undefined {
  if (typeof text !== 'string') return undefined;
  try {
    const { buffer } = Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
    if (buffer.byteLength % 36 > 0) return undefined;
    const corners = new Float32Array(buffer);
    const file = new StlBuilder();
    const corner = (at: number): Corner => [corners[at], corners[at + 1], corners[at + 2]];
    for (let t = 0; t < corners.length; t += 9) file.triangle(corner(t), corner(t + 3), corner(t + 6), [0, 0, 0]);
    return file.build();
  } catch {
    return undefined;
  }
}

/** Version 4 held the triangles of a casting itself; one without any has still to be chosen, one that is damaged stays, and is refused by its name. */
function stockFrom4({ casting, ...stock }: Plain, files: Uint8Array[]): Plain {
  if (!isPlain(casting)) return casting === undefined ? stock : { ...stock, casting };
  if (casting.triangles === '') return stock;
  const file = fileFrom4(casting.triangles);
  if (!file) return { ...stock, casting };
  files.push(file);
  return { ...stock, casting: { name: casting.name, sha256: sha256Of(file) } };
}

/** Steps from one format version to the next, by the version they start from. Each takes and gives plain data, and adds what stands beside it from now on. */
export const MIGRATIONS: Record<number, (old: Plain, files: Uint8Array[]) => Plain> = {
  1: (job) => ({
    ...job,
    formatVersion: 2,
    boldness: 0.5,
    tools: each(job.tools, toolFrom1),
    machine: each(job.machine, machineFrom1),
    material: each(job.material, materialFrom1),
  }),
  2: (job) => ({
    ...job,
    formatVersion: 3,
    setups: eachOperation(job, withSince2),
  }),
  3: (job) => ({
    ...job,
    formatVersion: 4,
    part: each(job.part, (part) => ({ kind: 'plate', ...part })),
    setups: eachOperation(job, operationFrom3),
  }),
  4: (job, files) => ({
    ...job,
    formatVersion: 5,
    material: each(job.material, materialFrom4),
    setups: each(job.setups, (setup) => ({ ...setup, stock: each(setup.stock, (stock) => stockFrom4(stock, files)) })),
  }),
  5: (job) => ({ ...job, formatVersion: 6, machine: each(job.machine, machineFrom5) }),
};
