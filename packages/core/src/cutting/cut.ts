import { Machine, powerAt } from '../shop/machine';
import { Material } from '../shop/material';
import { Tool, isDrill } from '../shop/tool';
import { drillPower } from './holes';
import {
  ballDiameter,
  cuttingPower,
  engagement,
  largestChip,
  meanChip,
  removalRate,
  specificForce,
  surfaceSpeed,
  toolDeflection,
  torqueOf,
} from './milling';

/** A cut as it is asked for; lengths mm, feed mm/min. */
export interface CutInput {
  tool: Tool;
  material: Material;
  machine: Machine;
  rpm: number;
  feed: number;
  /** Sideways bite; ignored for drills. */
  ae: number;
  /** Depth of the layer; ignored for drills. */
  ap: number;
  /** Widest bite that occurs, in corners and slots; the same as `ae` where left out. */
  peakAe?: number;
}

/** What a cut does to chip, spindle and tool. Lengths mm, angle radians, power kW, torque N·m, force N. */
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
  deflection: number;
}

/** A chip thinner than this rubs instead of cutting, mm. */
export const RUBBING = 0.005;

/** Diameter that cuts at depth `ap`: the whole one, or the ball's effective one. */
export const cuttingDiameter = (tool: Tool, ap: number) =>
  tool.kind === 'ball' && ap < tool.diameter / 2 ? Math.max(ballDiameter(ap, tool.diameter), 0.1) : tool.diameter;

/** The same cut where its bite is widest. */
export const atPeak = (input: CutInput): CutInput => ({ ...input, ae: Math.max(input.ae, input.peakAe ?? 0) });

/**
 * Chip, power and deflection of a cut by the relations of milling and drilling. The side force is that of one tooth at its
 * thickest chip, kc·ap·hex, which bends the tool as a stepped beam.
 */
export function cutState(input: CutInput): CutState {
  const { tool, material, machine, rpm, feed } = input;
  const chipLoad = rpm > 0 ? feed / (rpm * tool.flutes) : 0;
  const powerAvailable = powerAt(machine, rpm);
  if (isDrill(tool)) return drillState(input, chipLoad, powerAvailable);
  const D = cuttingDiameter(tool, input.ap);
  const ae = Math.min(input.ae, D);
  const phi = engagement(ae, D);
  const hm = meanChip(chipLoad, ae, D);
  const hex = largestChip(chipLoad, phi);
  const power = hm > 0 ? cuttingPower(input.ap, ae, feed, specificForce(material.kc11, material.mc, hm)) : 0;
  const force = hex > 0 ? specificForce(material.kc11, material.mc, hex) * input.ap * hex : 0;
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
    force,
    deflection: toolDeflection(force, tool),
  };
}

function drillState({ tool, material, rpm, feed }: CutInput, chipLoad: number, powerAvailable: number): CutState {
  const perTurn = rpm > 0 ? feed / rpm : 0;
  const thickness = chipLoad * Math.sin((tool.pointAngle * Math.PI) / 360);
  const vc = surfaceSpeed(rpm, tool.diameter);
  const kc = thickness > 0 ? specificForce(material.kc11, material.mc, thickness) : 0;
  const power = drillPower(perTurn, vc, tool.diameter, kc);
  return {
    surfaceSpeed: vc,
    chipLoad,
    engagement: Math.PI,
    largestChip: thickness,
    meanChip: thickness,
    removalRate: ((Math.PI * tool.diameter ** 2) / 4) * (feed / 1000),
    power,
    powerAvailable,
    torque: torqueOf(power, rpm),
    force: 0,
    deflection: 0,
  };
}
