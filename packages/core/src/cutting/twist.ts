import { Material } from '../shop/material';
import { Tool, formOf } from '../shop/tool';
import { kcOf } from './conditions';
import { specificForce } from './milling';
import { maths } from '../quantity/maths';

/**
 * What a tool fed along its axis stands in torsion, as a share of D³: the section of a twist drill is about half a full one, that of
 * a tap a core of two thirds of its diameter. Estimates.
 */
const SECTION = { drill: 0.1, tap: 0.058 } as const;

/** Chip of a tap against its pitch: a lead of about 8° over three flutes. Estimate. */
const TAP_CHIP = 0.05;
/** A thread that is pressed asks for so many times the torque of one that is cut. General workshop rule. */
const FORMING = 1.8;

/**
 * Torque of a tap in a full thread, N·m: P²·D·kc/8000, at the chip its lead makes. Textbook relation; forming taps ask for more.
 * Sharp and lubricated: a worn or dry one asks for twice as much.
 */
export function tapTorque(tool: Pick<Tool, 'kind' | 'diameter' | 'pitch'>, material: Material): number {
  const { mc } = material;
  const cut =
    (maths.pow(tool.pitch, 2) * tool.diameter * specificForce(kcOf(tool, material), mc, TAP_CHIP * tool.pitch)) / 8000;
  return tool.kind === 'forming-tap' ? FORMING * cut : cut;
}

/**
 * Stress of a torque in a drill or a tap as one that would pull as hard, N/mm²: √3·M/W. Von Mises.
 * @param torque N·m
 * @returns 0 for tools that only size a hole
 */
export function twistStress(tool: Pick<Tool, 'kind' | 'diameter'>, torque: number): number {
  const form = formOf(tool);
  if (form !== 'drill' && form !== 'tap') return 0;
  return (Math.sqrt(3) * torque * 1000) / (SECTION[form] * maths.pow(tool.diameter, 3));
}
