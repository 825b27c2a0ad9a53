/** Builds solids feature by feature and keeps the truth about them as it goes. Used only by `make.ts`: the kernel is a development dependency. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import * as kernel from 'replicad';
import type { True } from '../../packages/core/testing/solids';

const require = createRequire(__filename);

/** Makes the kernel ready. */
export async function startKernel(): Promise<void> {
  const start = require('replicad-opencascadejs') as (options: object) => Promise<Parameters<typeof kernel.setOC>[0]>;
  const wasmBinary = readFileSync(require.resolve('replicad-opencascadejs/wasm'));
  kernel.setOC(await start({ wasmBinary, print: () => {}, printErr: () => {} }));
}

export type { True };
export type Side = 'top' | 'underside' | 'front' | 'back' | 'left' | 'right';

type Solid = kernel.Shape3D & { cut(other: kernel.Shape3D): Solid; fuse(other: kernel.Shape3D): Solid };

/** A box with features cut into it from its six sides, its lower front left corner on zero. */
export class Builder {
  readonly truth: True[] = [];
  solid: Solid;

  constructor(
    readonly size: [number, number, number],
    outline?: kernel.Drawing,
  ) {
    const [x, y, z] = size;
    const drawn = outline ?? kernel.drawRectangle(x, y).translate(x / 2, y / 2);
    this.solid = drawn.sketchOnPlane('XY').extrude(z) as unknown as Solid;
  }

  private plane(side: Side, depth = 0): kernel.Plane {
    const [x, y, z] = this.size;
    const made = {
      top: [
        [0, 0, z - depth],
        [1, 0, 0],
        [0, 0, 1],
      ],
      underside: [
        [0, 0, depth],
        [-1, 0, 0],
        [0, 0, -1],
      ],
      front: [
        [0, depth, 0],
        [1, 0, 0],
        [0, -1, 0],
      ],
      back: [
        [x, y - depth, 0],
        [-1, 0, 0],
        [0, 1, 0],
      ],
      left: [
        [depth, y, 0],
        [0, -1, 0],
        [-1, 0, 0],
      ],
      right: [
        [x - depth, 0, 0],
        [0, 1, 0],
        [1, 0, 0],
      ],
    }[side] as [number, number, number][];
    return new kernel.Plane(made[0], made[1], made[2]);
  }

  /** A prism from a side down to a depth, standing a little proud of it. */
  private prism(drawing: kernel.Drawing, side: Side, depth: number, from = -1): kernel.Shape3D {
    const placed = side === 'underside' ? drawing.mirror([0, 1], [0, 0], 'plane') : drawing;
    return placed.sketchOnPlane(this.plane(side, from)).extrude(-(depth - from)) as unknown as kernel.Shape3D;
  }

  private through(side: Side): number {
    const [x, y, z] = this.size;
    return { top: z, underside: z, front: y, back: y, left: x, right: x }[side] + 1;
  }

  /** A pocket with upright corners, perhaps with islands left standing in it and a rounded foot. */
  pocket(
    side: Side,
    x: number,
    y: number,
    width: number,
    height: number,
    depth: number | 'through',
    corner: number,
    more: { islands?: { x: number; y: number; diameter: number; down?: number }[]; foot?: number } = {},
  ): this {
    const deep = depth === 'through' ? this.through(side) : depth;
    const drawing = kernel.drawRoundedRectangle(width, height, corner).translate(x, y);
    let tool = this.prism(drawing, side, deep) as Solid;
    if (more.foot) {
      const [px, py, pz] = this.size;
      const floor = { top: pz - deep, underside: deep, front: deep, back: py - deep, left: deep, right: px - deep }[
        side
      ];
      const plane = side === 'front' || side === 'back' ? 'XZ' : side === 'left' || side === 'right' ? 'YZ' : 'XY';
      tool = tool.fillet(more.foot, (e) => e.inPlane(plane, plane === 'XZ' ? -floor : floor)) as unknown as Solid;
    }
    for (const island of more.islands ?? []) {
      const post = kernel.drawCircle(island.diameter / 2).translate(island.x, island.y);
      tool = tool.cut(this.prism(post, side, deep + 1, island.down ?? -2));
      this.truth.push({
        kind: 'boss',
        side,
        x: island.x,
        y: island.y,
        diameter: island.diameter,
        depth: island.down ?? 0,
      });
    }
    this.solid = this.solid.cut(tool);
    const size = more.foot ? { size: more.foot } : {};
    const end = depth === 'through' ? { through: true } : { depth: deep };
    this.truth.push({ kind: 'pocket', side, x, y, width, height, corner, ...end, ...size });
    return this;
  }

  /** Metal away from an edge inwards: a pocket that is open where it runs past the part. */
  step(side: Side, x0: number, y0: number, x1: number, y1: number, depth: number | 'through'): this {
    const drawing = kernel.drawRectangle(x1 - x0, y1 - y0).translate((x0 + x1) / 2, (y0 + y1) / 2);
    this.solid = this.solid.cut(this.prism(drawing, side, depth === 'through' ? this.through(side) : depth));
    const end = depth === 'through' ? { through: true } : { depth };
    this.truth.push({
      kind: 'step',
      side,
      x: (x0 + x1) / 2,
      y: (y0 + y1) / 2,
      width: x1 - x0,
      height: y1 - y0,
      ...end,
    });
    return this;
  }

  /** A slot with round ends along X, or along Y with `upright`. */
  slot(
    side: Side,
    x: number,
    y: number,
    length: number,
    width: number,
    depth: number | 'through',
    upright = false,
  ): this {
    const deep = depth === 'through' ? this.through(side) : depth;
    const [run, half] = [(length - width) / 2, width / 2];
    const drawn = kernel
      .draw([-run, -half])
      .lineTo([run, -half])
      .threePointsArcTo([run, half], [run + half, 0])
      .lineTo([-run, half])
      .threePointsArcTo([-run, -half], [-run - half, 0])
      .close();
    const drawing = (upright ? drawn.rotate(90) : drawn).translate(x, y);
    this.solid = this.solid.cut(this.prism(drawing, side, deep));
    const end = depth === 'through' ? { through: true } : { depth: deep };
    this.truth.push({ kind: 'slot', side, x, y, width: length, height: width, ...end });
    return this;
  }

  hole(
    side: Side,
    x: number,
    y: number,
    diameter: number,
    depth: number | 'through',
    /** `ends`: where its walls end, when it comes out in a hollow; `from`: where its mouth lies. */
    more: Pick<True, 'point' | 'counterbore' | 'countersink'> & { from?: number; ends?: number } = {},
  ): this {
    const { from = 0, ends, point, counterbore, countersink } = more;
    const deep = depth === 'through' ? this.through(side) : depth;
    const at = (radius: number) => kernel.drawCircle(radius).translate(x, y);
    let tool = this.prism(at(diameter / 2), side, deep) as Solid;
    if (point) {
      const high = diameter / 2 / Math.tan((point / 2) * (Math.PI / 180));
      tool = tool.fuse(this.cone(side, x, y, deep, diameter / 2, 0, high));
    }
    if (counterbore) tool = tool.fuse(this.prism(at(counterbore.diameter / 2), side, from + counterbore.depth));
    if (countersink) {
      const slope = Math.tan((countersink.angle / 2) * (Math.PI / 180));
      const proud = 0.5;
      const wide = countersink.diameter / 2;
      tool = tool.fuse(
        this.cone(side, x, y, from - proud, wide + proud * slope, diameter / 2, (wide - diameter / 2) / slope + proud),
      );
    }
    this.solid = this.solid.cut(tool);
    const end = depth === 'through' ? { through: true, ...(ends && { ends }) } : { depth: ends ?? deep };
    this.truth.push({
      kind: 'hole',
      side,
      x,
      y,
      diameter,
      ...end,
      ...(from && { from }),
      ...(point && { point }),
      ...(counterbore && { counterbore: { ...counterbore, depth: from + counterbore.depth } }),
      ...(countersink && { countersink }),
    });
    return this;
  }

  /** A cone on the axis of a hole that narrows from a depth on. */
  private cone(
    side: Side,
    x: number,
    y: number,
    depth: number,
    wide: number,
    narrow: number,
    high: number,
  ): kernel.Shape3D {
    const cut = kernel.draw([0, 0]).lineTo([wide, 0]);
    const profile = (narrow > 0 ? cut.lineTo([narrow, -high]) : cut).lineTo([0, -high]).close();
    const turned = profile.sketchOnPlane('XZ').revolve() as unknown as kernel.Shape3D;
    const plane = this.plane(side, depth);
    const mirrored = side === 'underside' ? -x : x;
    const origin = plane.toWorldCoords([mirrored, y, 0]);
    const normal = plane.zDir;
    const [nx, ny, nz] = [normal.x, normal.y, normal.z];
    // Revolved about +Z; turned so that it looks along the side.
    const laid =
      nz > 0.5
        ? turned
        : nz < -0.5
          ? turned.rotate(180, [0, 0, 0], [1, 0, 0])
          : turned.rotate(90, [0, 0, 0], [-ny, nx, 0]);
    return laid.translate([origin.x, origin.y, origin.z]);
  }

  /** Any other change of the body, with what it is. */
  change(how: (solid: Solid) => kernel.Shape3D, ...truth: True[]): this {
    this.solid = how(this.solid) as Solid;
    this.truth.push(...truth);
    return this;
  }

  /** As a STEP file, its head without dates or names. */
  async stepFile(): Promise<string> {
    const text = await (this.solid.blobSTEP() as Blob).text();
    return text
      .replace(/'Open CASCADE STEP translator[^']*'/g, "'part'")
      .replace(/FILE_NAME\([\s\S]*?\);/, "FILE_NAME('part','2026-01-01T00:00:00',(''),(''),'','','');");
  }
}

export { kernel };
