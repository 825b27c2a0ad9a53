import { radians } from '../quantity/units';
import { Holder, holderWidth, slipTorque } from '../shop/holder';
import { Machine, powerAt } from '../machine/machine';
import { Material } from '../shop/material';
import { Tool, formOf, isAxial, onlyFaces } from '../shop/tool';
import { kcOf } from './conditions';
import { helicalForce } from './force';
import { drillPower } from './holes';
import { tapTorque, twistStress } from './twist';
import {
  BeamPiece,
  CORE_SHARE,
  MODULUS,
  ballDiameter,
  beamCurve,
  beamDeflection,
  beamSlope,
  cornerSine,
  cuttingPower,
  engagement,
  largestChip,
  meanChip,
  removalRate,
  specificForce,
  surfaceSpeed,
  torqueOf,
} from './milling';
import { maths } from '../quantity/maths';

/** How far a cutter may bend, mm, and why. */
export interface Bend {
  most: number;
  why: string;
}

/** A cut as it is asked for; lengths mm, feed mm/min. */
export interface CutInput {
  tool: Tool;
  material: Material;
  machine: Machine;
  rpm: number;
  feed: number;
  /** Sideways bite; ignored for tools fed along their axis. */
  ae: number;
  /** Depth of the layer; ignored for tools fed along their axis. */
  ap: number;
  /** Widest bite that occurs, in corners and slots; the same as `ae` where left out. */
  peakAe?: number;
  /** Metal left on the wall for a finish; none where left out. */
  leaves?: number;
  /** How far it may bend, where that is said. */
  bend?: Bend;
  /** Side force the work may be pushed with, N; any where left out. */
  hold?: number;
}

/** What a cut does to chip, spindle, tool and grip. Lengths mm, angle radians, power kW, torque N·m, force N. */
export interface CutState {
  surfaceSpeed: number;
  chipLoad: number;
  engagement: number;
  largestChip: number;
  meanChip: number;
  removalRate: number;
  power: number;
  powerAvailable: number;
  torque: number;
  force: number;
  /** How high above the tip the force acts, mm. */
  arm: number;
  deflection: number;
  /** At the root of flutes or shank; of tools fed along their axis what twists them, N/mm². */
  stress: number;
  /** Angle by which the tip tilts, times the radius: the step left on a floor. */
  floorStep: number;
  /** Share of the torque and pull at which the shank slips in its holder. */
  grip: number;
}

/** A chip thinner than this rubs instead of cutting, mm. General workshop figure for sharp edges. */
export const RUBBING = 0.005;

/** How much thicker a chip has to be where rubbing hardens the work. General workshop figure. */
const HARDENED = 2;

/** Thinnest chip worth asking of a tool, mm: {@link RUBBING}, twice that where rubbing hardens the work, or half the boldest chip of a cutter so small that it never gets there. */
export const thinnestChip = (tool: Tool, material: Material) =>
  Math.min(RUBBING * (material.workHardens ? HARDENED : 1), boldestChip(tool, material) / 2);

/** Above this diameter the tooth, not the diameter, sets the chip, mm. General workshop rule. */
const WIDEST_FOR_CHIP = 20;

/** Diameter that a chip load given as a share of the diameter is a share of, mm. */
export const chipDiameter = (tool: Pick<Tool, 'diameter'>) => Math.min(tool.diameter, WIDEST_FOR_CHIP);

/** Boldest largest chip the material's range allows this tool, mm a tooth. */
export const boldestChip = (tool: Tool, material: Material) =>
  isAxial(tool)
    ? ((material.drillShare.to / 100) * tool.diameter) / tool.flutes
    : (material.chipShare.to / 100) * chipDiameter(tool);

/** Diameter that cuts at depth `ap`, mm: the whole one, a ball's effective one, or a cone's at that height. */
export function cuttingDiameter(tool: Tool, ap: number): number {
  const { diameter, kind, tipDiameter, pointAngle } = tool;
  if (kind === 'ball' && ap < diameter / 2) return Math.max(ballDiameter(ap, diameter), 0.1);
  if (formOf(tool) === 'cone')
    return Math.min(diameter, Math.max(0.1, tipDiameter + 2 * ap * maths.tan((pointAngle * Math.PI) / 360)));
  return diameter;
}

/** sin κ of the edge that cuts at depth `ap`: below 1 the chip is thinner than the feed a tooth. Geometry. */
export function leadSine(tool: Tool, ap: number): number {
  const form = formOf(tool);
  if (form === 'cone') return Math.max(0.05, maths.cos((tool.pointAngle * Math.PI) / 360));
  if (form === 'mill' && tool.cornerRadius > 0) return Math.max(0.05, cornerSine(ap, tool.cornerRadius));
  return 1;
}

/** The same cut where its bite is widest. */
export const atPeak = (input: CutInput): CutInput => ({ ...input, ae: Math.max(input.ae, input.peakAe ?? 0) });

/** Core of a mill between its flutes, and how full what is between them may be (estimates). */
const GULLET = { core: 0.6, full: 0.5 } as const;
/** How much more room a chip takes than its metal: long ones curl, short and split ones lie closer (estimates). */
const LOOSE = { long: 5, short: 3 } as const;

/**
 * Share of a gullet's room that a tooth's chip takes, 1 where it is as full as it should be: fz·ae, loosely packed, in half of the gullet's
 * section π/4·(D² − (0.6·D)²)/z. Only the inside of a cut fills it: a side cut throws its chips out.
 * @param chipLoad mm a tooth
 * @param ae sideways bite, mm
 */
export function chipRoomShare(tool: Tool, material: Material, chipLoad: number, ae: number): number {
  if (formOf(tool) !== 'mill' || onlyFaces(tool)) return 0;
  const D = tool.diameter;
  const gullet = ((Math.PI / 4) * maths.pow(D, 2) * (1 - maths.pow(GULLET.core, 2))) / tool.flutes;
  const splits = tool.kind === 'roughing' || tool.splitsChips;
  const loose = material.longChips && !splits ? LOOSE.long : LOOSE.short;
  return (chipLoad * Math.min(ae, D) * loose) / (GULLET.full * gullet);
}

const CONE_STEPS = 4;

function holderPieces(holder: Holder, from: number): BeamPiece[] {
  const pieces: BeamPiece[] = [];
  let at = from;
  for (const s of holder.segments) {
    const steps = s.lower === s.upper ? 1 : CONE_STEPS;
    for (let i = 0; i < steps; i++) {
      const d = s.lower + ((s.upper - s.lower) * (i + 0.5)) / steps;
      pieces.push({ from: at, to: at + s.length / steps, d, E: MODULUS.steel });
      at += s.length / steps;
    }
  }
  return pieces;
}

/** A tool and its holder as a stepped beam held at the spindle: flutes at 0.8 D, shank, the holder's segments. */
export function beamOf(tool: Tool): BeamPiece[] {
  const E = MODULUS[tool.material];
  const fluted = Math.min(tool.fluteLength, tool.stickOut);
  return [
    { from: 0, to: fluted, d: CORE_SHARE * tool.diameter, E },
    { from: fluted, to: tool.stickOut, d: Math.min(tool.shankDiameter, holderWidth(tool.holder)), E },
    ...holderPieces(tool.holder, tool.stickOut),
  ];
}

/** Asked again and again for the same tools. */
const gives = new WeakMap<Tool, Give>();

/** How far a tip gives for each newton at the tip, mm, how far it tilts, radians, the curve of its beam, and its flutes alone. */
interface Give {
  bend: number;
  tilt: number;
  curve: number;
  flutes: number;
}

function giveOf(tool: Tool): Give {
  const known = gives.get(tool);
  if (known) return known;
  const beam = beamOf(tool);
  const give = {
    bend: beamDeflection(1, beam),
    tilt: beamSlope(1, beam),
    curve: beamCurve(1, beam),
    flutes: beamCurve(1, [{ ...beam[0], from: 0, to: 1 }]),
  };
  gives.set(tool, give);
  return give;
}

/**
 * How far a tip gives, mm, and tilts, radians, under a side force that acts so far above it: along the flutes, not at the tip. Beam
 * theory: δ = F·(δ0 − δ0′·a + a³/(6·E·I)).
 * @param force N
 * @param arm mm
 */
export function bendingOf(tool: Tool, force: number, arm: number): { deflection: number; tilt: number } {
  const { bend, tilt, curve, flutes } = giveOf(tool);
  const a = Math.min(arm, tool.fluteLength);
  return {
    deflection: force * (bend - tilt * a + (flutes * maths.pow(a, 3)) / 6),
    tilt: force * (tilt - curve * a + (flutes * maths.pow(a, 2)) / 2),
  };
}

/**
 * The curve a tool bends to, as shares of what its tip gives: 1 at the tip, what its holder gives where it leaves it. Beam theory:
 * y(z) = ∫ (u − z)·(u − a)/(E·I) du from z or the arm a up to the spindle.
 * @param arm how high above the tip the force acts, mm
 * @param heights above the tip, mm
 */
export function bentShape(tool: Tool, arm: number, heights: number[]): number[] {
  const beam = beamOf(tool);
  const gives = (z: number) =>
    beam.reduce((sum, { from, to, d, E }) => {
      const low = Math.max(from, z, arm);
      if (low >= to) return sum;
      const upTo = (u: number) => maths.pow(u, 3) / 3 - ((z + arm) * maths.pow(u, 2)) / 2 + z * arm * u;
      return sum + (upTo(to) - upTo(low)) / (E * ((Math.PI * maths.pow(d, 4)) / 64));
    }, 0);
  const tip = gives(0);
  return heights.map((z) => gives(z) / tip);
}

/**
 * Bending stress where a cutter breaks, N/mm²: M/W at the end of its flutes, on their core, or where it leaves the holder. Beam theory.
 * @param force N
 * @param arm how high above the tip it acts, mm
 */
export function rootStress(tool: Tool, force: number, arm: number): number {
  const at = (from: number, d: number) => (force * Math.max(0, from - arm)) / ((Math.PI * maths.pow(d, 3)) / 32);
  const fluted = Math.min(tool.fluteLength, tool.stickOut);
  return Math.max(at(fluted, CORE_SHARE * tool.diameter), at(tool.stickOut, tool.shankDiameter));
}

/**
 * Share of the grip that a cut uses, 0 to 1 and over: torque and the pull of the helix together, √(M² + (Fa·d/2)²), against the
 * torque at which the shank slips. A side-lock's flat takes the pull. Friction of a clamped cylinder.
 * @param tangential mean tangential force, N
 */
function gripShare(tool: Tool, tangential: number): number {
  const { holder, shankDiameter: d } = tool;
  const torque = (tangential * tool.diameter) / 2000;
  const pull = holder.grip === 'side-lock' ? 0 : tangential * maths.tan(radians(tool.helix));
  return maths.hypot(torque, (pull * d) / 2000) / slipTorque(holder, d);
}

/**
 * Chip, power, bending and grip of a cut by the relations of milling and drilling. The side force is the largest over a turn, summed
 * over the slices of all teeth in the metal; it bends the tool and its holder as a stepped beam, from where it acts along the flutes.
 */
export function cutState(input: CutInput): CutState {
  const { tool, material, machine, rpm, feed } = input;
  const kc11 = kcOf(tool, material);
  const chipLoad = rpm > 0 ? feed / (rpm * tool.flutes) : 0;
  const powerAvailable = powerAt(machine, rpm);
  if (isAxial(tool)) return axialState(input, chipLoad, powerAvailable);
  const D = cuttingDiameter(tool, input.ap);
  const sine = leadSine(tool, input.ap);
  const ae = Math.min(input.ae, D);
  const phi = engagement(ae, D);
  const hm = meanChip(chipLoad, ae, D) * sine;
  const hex = largestChip(chipLoad, phi) * sine;
  const power = hm > 0 ? cuttingPower(input.ap, ae, feed, specificForce(kc11, material.mc, hm)) : 0;
  const { peak, mean, arm } = helicalForce({
    diameter: D,
    teeth: tool.flutes,
    helix: radians(tool.helix),
    ap: input.ap,
    engagement: phi,
    fz: chipLoad,
    kc11: kc11 * maths.pow(sine, -material.mc),
    mc: material.mc,
  });
  const { deflection, tilt } = bendingOf(tool, peak, arm);
  return {
    surfaceSpeed: surfaceSpeed(rpm, D),
    chipLoad,
    engagement: phi,
    largestChip: hex,
    meanChip: hm,
    removalRate: removalRate(input.ap, ae, feed),
    power,
    powerAvailable,
    torque: torqueOf(power, rpm),
    force: peak,
    arm: Math.min(arm, tool.fluteLength),
    deflection,
    stress: rootStress(tool, peak, arm),
    floorStep: (tilt * tool.diameter) / 2,
    grip: gripShare(tool, mean),
  };
}

function axialState({ tool, material, rpm, feed }: CutInput, chipLoad: number, powerAvailable: number): CutState {
  const perTurn = rpm > 0 ? feed / rpm : 0;
  const point = formOf(tool) === 'drill' ? tool.pointAngle : 180;
  const thickness = chipLoad * maths.sin((point * Math.PI) / 360);
  const vc = surfaceSpeed(rpm, tool.diameter);
  const kc = thickness > 0 ? specificForce(kcOf(tool, material), material.mc, thickness) : 0;
  const form = formOf(tool);
  const power =
    form === 'drill'
      ? drillPower(perTurn, vc, tool.diameter, kc)
      : form === 'tap'
        ? (tapTorque(tool, material) * rpm) / 9549
        : 0;
  const torque = torqueOf(power, rpm);
  return {
    surfaceSpeed: vc,
    chipLoad,
    engagement: Math.PI,
    largestChip: thickness,
    meanChip: thickness,
    removalRate: ((Math.PI * maths.pow(tool.diameter, 2)) / 4) * (feed / 1000),
    power,
    powerAvailable,
    torque,
    force: 0,
    arm: 0,
    deflection: 0,
    stress: twistStress(tool, torque),
    floorStep: 0,
    grip: torque / slipTorque(tool.holder, tool.shankDiameter),
  };
}
