/** Relations of milling; lengths mm, speeds m/min and rpm, feeds mm/min, forces N, power kW, angles in radians. */
import { maths } from '../quantity/maths';

/** Spindle speed, rpm, for a surface speed vc (m/min) on diameter D (mm): 1000·vc/(π·D). Textbook relation. */
export const spindleSpeed = (vc: number, D: number) => (1000 * vc) / (Math.PI * D);

/** Surface speed, m/min, of diameter D (mm) at n rpm. Inverse of {@link spindleSpeed}. */
export const surfaceSpeed = (n: number, D: number) => (Math.PI * D * n) / 1000;

/** Table feed, mm/min: n·z·fz. Textbook relation. */
export const feedRate = (n: number, z: number, fz: number) => n * z * fz;

/**
 * Engaged angle of a side cut, radians, 0 to π: acos(1 − 2·ae/D). `ae` is held within 0..D. Geometry of the cut.
 */
export function engagement(ae: number, D: number): number {
  return maths.acos(Math.min(1, Math.max(-1, 1 - (2 * ae) / D)));
}

/** Sideways bite, mm, that gives an engaged angle (radians) on diameter D. Inverse of {@link engagement}. */
export const biteFor = (phi: number, D: number) => ((1 - maths.cos(phi)) * D) / 2;

/** Largest chip thickness, mm, lead angle 90°: fz·sin φ below 90° of engagement, else fz. Textbook relation. */
export const largestChip = (fz: number, phi: number) => (phi < Math.PI / 2 ? fz * maths.sin(phi) : fz);

/** Mean chip thickness, mm: 2·fz·ae/(D·φ). Textbook relation; 0 where nothing is engaged. */
export function meanChip(fz: number, ae: number, D: number): number {
  const phi = engagement(ae, D);
  return phi === 0 ? 0 : (2 * fz * Math.min(ae, D)) / (D * phi);
}

/** Chip load, mm a tooth, that holds a largest chip `hex` at engaged angle φ (radial chip thinning). */
export const chipLoadFor = (hex: number, phi: number) => (phi < Math.PI / 2 ? hex / maths.sin(phi) : hex);

/** Specific cutting force, N/mm²: kc1.1·hm^(−mc). Power law after Kienzle. `hm` > 0 mm. */
export const specificForce = (kc11: number, mc: number, hm: number) => kc11 * maths.pow(hm, -mc);

/** Removal rate, cm³/min: ap·ae·vf/1000. */
export const removalRate = (ap: number, ae: number, vf: number) => (ap * ae * vf) / 1000;

/** Power at the cutter, kW: ap·ae·vf·kc/60e6. Textbook relation. */
export const cuttingPower = (ap: number, ae: number, vf: number, kc: number) => (ap * ae * vf * kc) / 60e6;

/** Power at the cutter, kW, of a volume taken in a second (mm³/s) at a specific force (N/mm²): Q·kc/1e6. */
export const removalPower = (rate: number, kc: number) => (rate * kc) / 1e6;

/** Torque, N·m: 9549·P/n. */
export const torqueOf = (P: number, n: number) => (n > 0 ? (9549 * P) / n : 0);

/** Elastic modulus of a cutting material, N/mm². */
export const MODULUS = { carbide: 600_000, hss: 210_000, steel: 210_000 } as const;

/** Core diameter of the fluted length as a share of D. */
export const CORE_SHARE = 0.8;

/**
 * Tip deflection of a cantilever of one diameter, mm: F·L³/(3·E·I), I = π·d⁴/64. Beam theory.
 * @param F side force at the tip, N
 * @param L free length, mm
 * @param d diameter that carries, mm
 * @param E modulus, N/mm²
 */
export const cantilever = (F: number, L: number, d: number, E: number) =>
  (F * maths.pow(L, 3)) / (3 * E * ((Math.PI * maths.pow(d, 4)) / 64));

/** One piece of a stepped beam: from `from` to `to` mm behind the tip, of diameter `d` mm and modulus `E` N/mm². */
export interface BeamPiece {
  from: number;
  to: number;
  d: number;
  E: number;
}

const inertia = (d: number) => (Math.PI * maths.pow(d, 4)) / 64;

/** Tip deflection of a stepped beam, mm: Σ F·(b³ − a³)/(3·E·I) over its pieces. Beam theory. `F` side force at the tip, N. */
export const beamDeflection = (F: number, pieces: BeamPiece[]) =>
  pieces.reduce((sum, p) => sum + (F * (maths.pow(p.to, 3) - maths.pow(p.from, 3))) / (3 * p.E * inertia(p.d)), 0);

/** Slope of a stepped beam at its tip, radians: Σ F·(b² − a²)/(2·E·I). Beam theory. */
export const beamSlope = (F: number, pieces: BeamPiece[]) =>
  pieces.reduce((sum, p) => sum + (F * (maths.pow(p.to, 2) - maths.pow(p.from, 2))) / (2 * p.E * inertia(p.d)), 0);

/** Change of slope of a stepped beam under a moment of F·1 mm, radians: Σ F·(b − a)/(E·I). Beam theory. */
export const beamCurve = (F: number, pieces: BeamPiece[]) =>
  pieces.reduce((sum, p) => sum + (F * (p.to - p.from)) / (p.E * inertia(p.d)), 0);

/** sin κ of a cutting edge at depth ap (mm): 1 for a square corner; on a corner radius r the local angle, cos κ = (r − ap)/r. */
export const cornerSine = (ap: number, r: number) => (ap >= r ? 1 : Math.sqrt(1 - maths.pow(1 - ap / r, 2)));

/** Centre feed on an arc, mm/min, that keeps `vf` at a wall of radius Rw: inside (Rw−r)/Rw, outside (Rw+r)/Rw. */
export const arcFeed = (vf: number, Rw: number, r: number, side: 'inside' | 'outside') =>
  (vf * (side === 'inside' ? Rw - r : Rw + r)) / Rw;

/** Engaged angle at an inside corner of a plain offset path, radians: straight angle + (π − corner), at most π. */
export const cornerEngagement = (ae: number, D: number, corner: number) =>
  Math.min(Math.PI, engagement(ae, D) + (Math.PI - corner));

/** Effective diameter of a ball, mm: 2·√(ap·(D−ap)); tilted by β (radians): D·sin(β + acos((D−2ap)/D)). */
export function ballDiameter(ap: number, D: number, tilt = 0): number {
  const depth = Math.min(ap, D / 2);
  return tilt === 0 ? 2 * Math.sqrt(depth * (D - depth)) : D * maths.sin(tilt + maths.acos((D - 2 * depth) / D));
}

/** Height of the ridge between parallel ball passes, mm: r − √(r² − (ae/2)²). */
export const scallopHeight = (ae: number, D: number) =>
  D / 2 - Math.sqrt(Math.max(0, maths.pow(D / 2, 2) - maths.pow(ae / 2, 2)));

/** Stepover that leaves ridges of height h with a ball, mm: 2·√(h·(D−h)). */
export const stepoverForScallop = (h: number, D: number) => 2 * Math.sqrt(h * (D - h));

/** Feed marks on a milled wall, mm: about fz²/(4·D). */
export const feedMarks = (fz: number, D: number) => (fz * fz) / (4 * D);

/** Mean roughness of a row of feed marks as a share of their height: that of arcs, 4/(9·√3). */
const RA_SHARE = 4 / (9 * Math.sqrt(3));

/**
 * Roughness of a milled wall, µm Ra: marks of one tooth a turn, as runout has it, (vf/n)²/(4·D) high. Geometry; a real wall is no better.
 * @param perTurn feed a turn, mm
 */
export const wallRoughness = (perTurn: number, D: number) => 1000 * RA_SHARE * feedMarks(perTurn, D);

/** Feed a turn, mm, that leaves a wall of so much Ra, µm. Inverse of {@link wallRoughness}. */
export const perTurnForRoughness = (ra: number, D: number) => chipLoadForMarks(ra / 1000 / RA_SHARE, D);

/** Chip load, mm a tooth, whose feed marks on a wall are h mm high. Inverse of {@link feedMarks}. */
export const chipLoadForMarks = (h: number, D: number) => Math.sqrt(4 * D * h);

/** Tool life relative to a known one when the surface speed changes by `ratio`: ratio^(−1/n). Taylor; n 0.25 carbide, 0.125 HSS. */
export const relativeLife = (ratio: number, material: 'carbide' | 'hss') =>
  maths.pow(ratio, material === 'hss' ? -8 : -4);
