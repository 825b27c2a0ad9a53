import { HOLDERS } from '../shop/library/holders';
import { MATERIALS } from '../shop/library/materials';

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

/** Values operations got after version 2, at what they did without them. */
const FINISHING = { finishLaps: 1, spring: false, overlap: 0, floorGap: 0, finishFeed: 1, finishStart: 0 };
const SINCE_2: Record<string, Plain> = {
  face: { rolledIn: false },
  clear: { ...FINISHING, feedOver: false },
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

function operationFrom2({ params, ...operation }: Plain): Plain {
  const since = SINCE_2[String(operation.kind)];
  return { ...operation, params: since && isPlain(params) ? { ...since, ...params } : params };
}

/** Steps from one format version to the next, by the version they start from. Each takes and gives plain data. */
export const MIGRATIONS: Record<number, (old: Plain) => Plain> = {
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
    setups: each(job.setups, (setup) => ({ ...setup, operations: each(setup.operations, operationFrom2) })),
  }),
};
