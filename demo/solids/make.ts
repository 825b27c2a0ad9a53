/** Makes the solids of the demo and of the tests with their truth: `npx tsx demo/solids/make.ts`. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Builder, True, kernel, startKernel } from './build';

/** A closed gauge housing: both sides, and holes from two sides beside. */
const gaugeHousing = () =>
  new Builder([110, 76, 34], kernel.drawRoundedRectangle(110, 76, 8).translate(55, 38))
    .pocket('top', 55, 38, 90, 56, 22, 6, {
      islands: [
        { x: 34, y: 26, diameter: 12, down: 10 },
        { x: 76, y: 50, diameter: 12, down: 10 },
      ],
    })
    .hole('top', 34, 26, 3.3, 20, { point: 118, from: 10 })
    .hole('top', 76, 50, 3.3, 20, { point: 118, from: 10 })
    .step('top', -2, -2, 112, 4, 3)
    .hole('top', 6, 70, 4.2, 14, { point: 118 })
    .hole('top', 104, 70, 4.2, 14, { point: 118 })
    .hole('top', 6, 9, 4.2, 14, { point: 118 })
    .hole('top', 104, 9, 4.2, 14, { point: 118 })
    .hole('top', 30, 50, 5.5, 'through')
    .hole('top', 80, 26, 5.5, 'through')
    .hole('top', 55, 38, 20, 'through')
    .pocket('underside', 55, 38, 60, 40, 6, 5)
    .slot('underside', 15, 38, 30, 8, 4, true)
    .slot('underside', 95, 38, 30, 8, 4, true)
    .hole('underside', 20, 5.2, 4.3, 'through', { counterbore: { diameter: 8, depth: 4.4 } })
    .hole('underside', 90, 70.8, 4.3, 'through', { counterbore: { diameter: 8, depth: 4.4 } })
    .hole('front', 30, 17, 8.5, 10)
    .hole('front', 80, 17, 8.5, 10)
    .hole('right', 20, 22, 6, 10)
    .hole('right', 56, 22, 6, 10)
    .hole('left', 38, 22, 16.5, 10)
    .hole('underside', 40, 24, 2.5, 10, { point: 118 })
    .hole('underside', 70, 24, 2.5, 10, { point: 118 })
    .hole('underside', 40, 52, 2.5, 10, { point: 118 })
    .hole('underside', 70, 52, 2.5, 10, { point: 118 })
    .hole('back', 35, 12, 6.8, 9)
    .hole('back', 75, 12, 6.8, 9)
    .hole('top', 55, 72, 5, 8);

/** A bracket for a probe: rounded feet, a broken edge, a wall with taper. */
const probeBracket = () =>
  new Builder([90, 60, 24])
    .pocket('top', 30, 30, 40, 40, 14, 8, { foot: 1 })
    .step('top', 62, -2, 92, 62, 10)
    .hole('top', 76, 15, 6.6, 'through')
    .hole('top', 76, 45, 6.6, 'through')
    .hole('top', 30, 30, 10, 'through')
    .change((solid) => solid.chamfer(1, (e) => e.inPlane('XY', 24).inDirection('Y').containsPoint([0, 30, 24])), {
      ...{ kind: 'chamfer', side: 'top', x: 0, y: 30, size: 1 },
    })
    .change(
      (solid) => {
        const lean = 10 * Math.tan((5 * Math.PI) / 180);
        const wedge = kernel
          .draw([90, 25])
          .lineTo([90 - 2.4 * lean, 25])
          .lineTo([90, 1])
          .close();
        return solid.cut(
          wedge
            .sketchOnPlane(new kernel.Plane([0, -1, 0], [1, 0, 0], [0, -1, 0]))
            .extrude(-62) as unknown as kernel.Shape3D,
        );
      },
      { kind: 'taper', side: 'top', taper: 5 },
    );

/** A cover plate, all from above. */
const coverPlate = () =>
  new Builder([120, 80, 15], kernel.drawRoundedRectangle(120, 80, 10).translate(60, 40))
    .pocket('top', 38, 40, 52, 52, 8, 6, { islands: [{ x: 38, y: 40, diameter: 16 }] })
    .pocket('top', 88, 52, 40, 30, 5, 5)
    .pocket('top', 88, 52, 20, 14, 10, 4)
    .slot('top', 88, 18, 34, 8, 6)
    .hole('top', 8, 8, 5.5, 'through', { counterbore: { diameter: 10, depth: 5.4 } })
    .hole('top', 112, 8, 5.5, 'through', { counterbore: { diameter: 10, depth: 5.4 } })
    .hole('top', 8, 72, 5.5, 'through', { counterbore: { diameter: 10, depth: 5.4 } })
    .hole('top', 112, 72, 5.5, 'through', { counterbore: { diameter: 10, depth: 5.4 } })
    .hole('top', 38, 40, 8, 'through', { countersink: { diameter: 10, angle: 90 } })
    .hole('top', 60, 8, 4.2, 10, { point: 118 })
    .hole('top', 60, 72, 4.2, 10, { point: 118 });

/** Steps and slots open to the sides. */
const drainStep = () =>
  new Builder([90, 60, 45])
    .step('top', 50, -2, 92, 62, 30)
    .step('top', 25, -2, 50, 62, 15)
    .step('top', -2, 24, 25, 36, 8)
    .slot('top', 70, 30, 24, 10, 36, true)
    .hole('top', 12, 12, 6.8, 20, { point: 118 })
    .hole('top', 12, 48, 6.8, 20, { point: 118 })
    .hole('front', 70, 8, 5, 12);

/** A round flange with a circle of holes, a hub, one flat and a cross hole. */
const hubFlange = () =>
  new Builder([110, 110, 32], kernel.drawCircle(55).translate(55, 55))
    .change(
      (solid) => {
        const ring = kernel.drawCircle(60).translate(55, 55).cut(kernel.drawCircle(25).translate(55, 55));
        return solid.cut(
          ring
            .sketchOnPlane(new kernel.Plane([0, 0, 40], [1, 0, 0], [0, 0, 1]))
            .extrude(-26) as unknown as kernel.Shape3D,
        );
      },
      { kind: 'boss', side: 'top', x: 55, y: 55, diameter: 50, depth: 0 },
      { kind: 'step', side: 'top', depth: 18 },
    )
    .hole('top', 55, 55, 30, 'through')
    .hole('top', 95, 55, 9, 'through')
    .hole('top', 75, 55 + 40 * Math.sin(Math.PI / 3), 9, 'through')
    .hole('top', 35, 55 + 40 * Math.sin(Math.PI / 3), 9, 'through')
    .hole('top', 15, 55, 9, 'through')
    .hole('top', 35, 55 - 40 * Math.sin(Math.PI / 3), 9, 'through')
    .hole('top', 75, 55 - 40 * Math.sin(Math.PI / 3), 9, 'through')
    .hole('front', 55, 23, 6, 48, { ends: 55 - Math.sqrt(15 ** 2 - 3 ** 2) });

/** A tray of thin walls, with a through window. */
const thinTray = () =>
  new Builder([90, 60, 30])
    .pocket('top', 45, 30, 86.4, 56.4, 25, 6)
    .pocket('underside', 45, 30, 60, 30, 2, 8)
    .slot('front', 45, 15, 30, 12, 1.8)
    .hole('top', 45, 30, 12, 'through');

/** A mould with a bowl of free form let into it. */
const rainCup = () =>
  new Builder([80, 80, 30]).change(
    (solid) => {
      const half = kernel
        .draw([0, 31])
        .lineTo([30, 31])
        .smoothSplineTo([18, 18], { startTangent: [-0.2, -1], endTangent: [-1, -0.5] })
        .smoothSplineTo([0, 8], { endTangent: [-1, 0] })
        .close();
      const bowl = half.sketchOnPlane('XZ').revolve() as unknown as kernel.Shape3D;
      return solid.cut(bowl.translate([40, 40, 0]));
    },
    { kind: 'free', side: 'top' },
  );

/** A float of free form on a foot. */
const floatShell = () =>
  new Builder([90, 60, 8]).change(
    (solid) => {
      const at = (z: number, a: number, b: number, turn: number) =>
        kernel.drawEllipse(a, b).rotate(turn).translate(45, 30).sketchOnPlane('XY', z) as unknown as kernel.Sketch;
      const shell = at(7, 32, 22, 0).loftWith([at(20, 26, 17, 10), at(30, 14, 10, 25)], { ruled: false });
      return solid.fuse(shell as unknown as kernel.Shape3D);
    },
    { kind: 'free', side: 'top' },
  );

/** A latch body whose edges are broken: round the outside above and below, round the mouth of a pocket, round a boss, along one edge of a step; and a pocket with draft. */
const latchBody = () => {
  const draft = 4 * Math.tan((5 * Math.PI) / 180);
  const around =
    (x: number, y: number, w: number, h: number, near = 4) =>
    (e: kernel.EdgeFinder) =>
      e.inBox([x - w / 2 - near, y - h / 2 - near, -1], [x + w / 2 + near, y + h / 2 + near, 40]);
  return new Builder([80, 60, 20], kernel.drawRoundedRectangle(80, 60, 6).translate(40, 30))
    .step('top', -2, 52, 82, 62, 5)
    .pocket('top', 24, 26, 30, 36, 8, 5)
    .pocket('top', 60, 26, 26, 40, 6, 5, { islands: [{ x: 60, y: 26, diameter: 12, down: 1 }] })
    .change((solid) => solid.chamfer(0.6, (e) => around(24, 26, 30, 36, 1)(e.inPlane('XY', 20))), {
      ...{ kind: 'chamfer', side: 'top', x: 24, y: 26, size: 0.6 },
    })
    .change((solid) => solid.fillet(1.5, (e) => around(60, 26, 12, 12, 1)(e.inPlane('XY', 19))), {
      ...{ kind: 'fillet', side: 'top', x: 60, y: 26, size: 1.5 },
    })
    .change((solid) => solid.chamfer(1, (e) => e.inPlane('XY', 20).inDirection('X').containsPoint([40, 52, 20])), {
      ...{ kind: 'chamfer', side: 'top', x: 40, y: 52, size: 1 },
    })
    .change((solid) => solid.chamfer(0.5, (e) => e.inPlane('XY', 0)), {
      ...{ kind: 'chamfer', side: 'underside', x: 40, y: 30, size: 0.5 },
    })
    .change(
      (solid) => {
        const mouth = kernel.drawRoundedRectangle(30 + 2 * draft, 20 + 2 * draft, 4 + draft).translate(40, 30);
        const floor = kernel.drawRoundedRectangle(30, 20, 4).translate(40, 30);
        const at = (drawing: kernel.Drawing, z: number) => drawing.sketchOnPlane('XY', z) as unknown as kernel.Sketch;
        return solid.cut(at(floor, 4).loftWith([at(mouth, 0)], { ruled: true }) as unknown as kernel.Shape3D);
      },
      { kind: 'pocket', side: 'underside', x: 40, y: 30, width: 30, height: 20, corner: 4, depth: 4, taper: 5 },
    )
    .change(
      (solid) => {
        const drill = kernel.drawCircle(1.5).sketchOnPlane('XY', -12).extrude(40) as unknown as kernel.Shape3D;
        return solid.cut(drill.rotate(30, [0, 0, 0], [0, 1, 0]).translate([40, 57, 15]));
      },
      {
        ...{ kind: 'hole', side: 'top', x: 40 + 5 * Math.tan(Math.PI / 6), y: 57, diameter: 3 },
        ...{ depth: 12 + 5 / Math.cos(Math.PI / 6), lean: { to: 'right', degrees: 30 } },
      },
    )
    .hole('top', 8, 56, 5.5, 'through')
    .hole('top', 72, 56, 5.5, 'through');
};

/** A fork for a rod: its slot runs right through from the front and out at its round end. */
const rodFork = () =>
  new Builder(
    [90, 40, 36],
    kernel.draw([0, 0]).lineTo([70, 0]).threePointsArcTo([70, 40], [90, 20]).lineTo([0, 40]).close(),
  )
    .hole('top', 70, 20, 16, 'through')
    .step('right', -2, 11.5, 42, 24.5, 50)
    .hole('left', 22, 18, 8.5, 25);

/** A block that slides: a slot wider below than at its mouth, a ramp, and a hole square to the ramp. */
const slideBlock = () =>
  new Builder([100, 60, 40])
    .step('top', -2, 24, 60, 36, 22)
    .change(
      (solid) => {
        const hollow = kernel.drawRectangle(62, 24).translate(29, 30).sketchOnPlane('XY', 18).extrude(9);
        return solid.cut(hollow as unknown as kernel.Shape3D);
      },
      { kind: 'step', side: 'left', depth: 60 },
    )
    .change(
      (solid) => {
        const low = 40 - 30 * Math.tan(Math.PI / 6);
        const ramp = kernel
          .draw([70, 41])
          .lineTo([70, 40])
          .lineTo([101, low - Math.tan(Math.PI / 6)])
          .lineTo([101, 41]);
        const away = ramp.close().sketchOnPlane('XZ', 1).extrude(-62) as unknown as kernel.Shape3D;
        const drill = kernel.drawCircle(3).sketchOnPlane('XY', -12).extrude(40) as unknown as kernel.Shape3D;
        const at = 40 - 15 * Math.tan(Math.PI / 6);
        return (solid.cut(away) as typeof solid).cut(drill.rotate(30, [0, 0, 0], [0, 1, 0]).translate([85, 30, at]));
      },
      { kind: 'step', side: 'front', through: true },
      {
        ...{ kind: 'hole', side: 'top', x: 85 + 15 * Math.tan(Math.PI / 6) ** 2, y: 30, diameter: 6 },
        ...{ depth: 12 + (15 * Math.tan(Math.PI / 6)) / Math.cos(Math.PI / 6), lean: { to: 'right', degrees: 30 } },
      },
    )
    .hole('top', 10, 8, 6.6, 'through')
    .hole('top', 10, 52, 6.6, 'through');

/** An angle: holes through its leg alone, mouths on its foot, one into a pocket, a dovetail across its underside. */
const seatAngle = () =>
  new Builder([80, 60, 40])
    .step('top', 12, -2, 82, 62, 28)
    .pocket('top', 40, 30, 24, 20, 36, 4)
    .hole('left', 15, 25, 6.6, 'through', { ends: 12 })
    .hole('left', 45, 25, 6.6, 'through', { ends: 12 })
    .hole('top', 60, 12, 5.5, 'through', { from: 28, counterbore: { diameter: 10, depth: 5.4 } })
    .hole('top', 60, 48, 5.5, 'through', { from: 28, counterbore: { diameter: 10, depth: 5.4 } })
    .hole('front', 40, 8, 4, 20)
    .change(
      (solid) => {
        const profile = kernel.draw([69, -1]).lineTo([71, -1]).lineTo([74, 4]).lineTo([66, 4]).close();
        const plane = new kernel.Plane([0, -1, 0], [1, 0, 0], [0, -1, 0]);
        return solid.cut(profile.sketchOnPlane(plane).extrude(-62) as unknown as kernel.Shape3D);
      },
      { kind: 'step', side: 'underside', x: 70, y: 30, width: 3.2, height: 60, depth: 4 },
    );

const PARTS: Record<string, () => Builder> = {
  gaugeHousing,
  probeBracket,
  coverPlate,
  drainStep,
  hubFlange,
  thinTray,
  rainCup,
  floatShell,
  latchBody,
  rodFork,
  slideBlock,
  seatAngle,
};

const kebab = (name: string) => name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`);

/** How many faces of each kind the kernel made. */
function facesOf({ solid }: Builder): Record<string, number> {
  const counts: Record<string, number> = {};
  const names: Record<string, string> = {
    PLANE: 'plane',
    CYLINDRE: 'cylinder',
    CONE: 'cone',
    SPHERE: 'ball',
    TORUS: 'ring',
  };
  for (const face of solid.faces) {
    const kind = names[face.geomType] ?? 'free';
    counts[kind] = (counts[kind] ?? 0) + 1;
  }
  return counts;
}

async function main(): Promise<void> {
  await startKernel();
  const truth: Record<string, { size: number[]; faces: Record<string, number>; features: True[] }> = {};
  for (const [name, make] of Object.entries(PARTS)) {
    const built = make();
    const file = kebab(name);
    writeFileSync(join(__dirname, `${file}.step`), await built.stepFile());
    const isFree = built.truth.some((f) => f.kind === 'free');
    const stl = built.solid.blobSTL({
      tolerance: isFree ? 0.03 : 0.01,
      angularTolerance: isFree ? 0.5 : 0.3,
      binary: true,
    });
    writeFileSync(join(__dirname, `${file}.stl`), new Uint8Array(await stl.arrayBuffer()));
    truth[file] = { size: built.size, faces: facesOf(built), features: built.truth };
    process.stdout.write(`${file}: ${built.truth.length} features\n`);
  }
  writeFileSync(join(__dirname, 'truth.json'), `${JSON.stringify(truth, null, 1)}\n`);
}

void main();
