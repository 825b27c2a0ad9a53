/** How long an edge lasts in a cut, from the life it is stated for. */
import { maths } from '../quantity/maths';
import { Material } from '../shop/material';
import { Tool, formOf, isAxial } from '../shop/tool';
import { chipDiameter } from './cut';

/** The cut an edge's life is stated for: minutes, m/min, mm of largest chip; at half the diameter wide. */
export interface LifeReference {
  minutes: number;
  speed: number;
  chip: number;
  exponent: number;
}

/** How life falls with speed, chip and the share of a turn in contact. Workshop estimates; the log of a shop knows better. */
const SPEED = { carbide: 4, hss: 8 };
const CHIP = 1.2;
const ANGLE = 1.5;
/** Degrees in contact at half the diameter. */
const HALF = 90;
/** Thinner contact is counted as this, degrees. */
const LEAST_ANGLE = 5;

/** By how much the edges of a tool last longer in a material than its card says, as the log has it. */
export const edgesLast = ({ lasts }: Pick<Tool, 'lasts'>, { id }: Pick<Material, 'id'>): number =>
  lasts?.find((l) => l.materialId === id)?.factor ?? 1;

/** What the life on a tool's card is taken to be for: the middle of the material's range. */
export function lifeReference(tool: Tool, material: Material): LifeReference {
  const form = formOf(tool);
  const isDrill = form === 'drill' || tool.kind === 'reamer';
  const range =
    form === 'tap' ? material.tappingSpeed : material[isDrill ? 'drillingSpeed' : 'millingSpeed'][tool.material];
  const share = isAxial(tool) ? material.drillShare : material.chipShare;
  const middle = ({ from, to }: { from: number; to: number }) => (from + to) / 2;
  const across = isAxial(tool) ? tool.diameter / tool.flutes : chipDiameter(tool);
  return {
    minutes: tool.edgeLife * edgesLast(tool, material),
    speed: middle(range),
    chip: (middle(share) / 100) * across,
    exponent: SPEED[tool.material],
  };
}

/**
 * Minutes in cut until an edge is worn: T = T0·(v/v0)^−4·(h/h0)^−1.2·(90°/φ)^1.5; ^−8 for high-speed steel.
 * @param cut speed m/min, largest chip mm, engaged angle in degrees; chip and angle count where they are given
 */
export function edgeLife(
  { minutes, speed, chip, exponent }: LifeReference,
  cut: { speed: number; chip?: number; angle?: number },
): number {
  const bySpeed = maths.pow(cut.speed / speed, -exponent);
  const byChip = cut.chip ? maths.pow(cut.chip / chip, -CHIP) : 1;
  const byAngle = cut.angle ? maths.pow(HALF / Math.max(LEAST_ANGLE, cut.angle), ANGLE) : 1;
  return minutes * bySpeed * byChip * byAngle;
}
