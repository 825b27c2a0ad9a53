import * as THREE from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js';
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js';
import { LineSegmentsGeometry } from 'three/examples/jsm/lines/LineSegmentsGeometry.js';
import { Allowed, FixtureBox, StockModel, Tool, deviation, type Vec3, SurfaceView } from '@tidypath/core';
import { Palette, TEMPER } from '../theme/theme';
import { Hand } from './hand';
import { DIRECTIONS, type Angle, type MetFace, type SectionPlane, type Segments, type Size, type Touch } from './terms';
import { SolidModel } from './solid';
import { fixtureModels, flags, pins, toolModel, zeroArms } from './models';
import { rawSurface } from './raw';
import { fillColours, fillHeights, shadeOf, surfaceGeometry } from './surface';

const PATH_WIDTH = 2.2;
/** Metal so thin above the underside is none, mm. */
const NOTHING_LEFT = 0.02;
/** Half of what a finger covers, pixels. */
const FINGER = 12;
/** Milliseconds after which a picture that was let go of rests. */
const REST = 200;
/** Milliseconds between two looks whether a picture is finished. */
const LOOK_AGAIN = 4;
/** The picture: stock as a warm block, edges in ink, path, tool and fixtures. Drawn only when something changes. */
export class Scene {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly hand: Hand;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.OrthographicCamera(-1, 1, 1, -1, -5000, 5000);
  private readonly controls: OrbitControls;
  private readonly groups = new Map<string, THREE.Object3D>();
  private surface?: { mesh: THREE.Mesh; view: SurfaceView };
  private solid?: SolidModel;
  private heights: Float32Array = new Float32Array(0);
  private allowed?: Allowed;
  private readonly plain: number[];
  /** As wanted, cut into, then left by more and more. */
  private readonly shades: number[][];
  private box = new THREE.Box3(new THREE.Vector3(0, 0, -10), new THREE.Vector3(100, 60, 0));
  /** Room the fixtures take. */
  private held = new THREE.Box3();
  private isDrawing = false;
  private isStale = false;
  private isGone = false;
  /** What was replaced: kept until its successor is drawn, which then takes over its shaders. */
  private replaced: THREE.Object3D[] = [];
  private resting?: ReturnType<typeof setTimeout>;
  /** Side the picture was last fitted from; undefined once a hand has turned it. */
  private fitted?: Angle;

  constructor(
    private readonly canvas: OffscreenCanvas,
    private readonly palette: Palette,
    size: Size,
    private readonly onDrawn: () => void,
  ) {
    this.plain = new THREE.Color(palette.stock).toArray();
    this.shades = [palette.right, palette.danger, ...TEMPER].map((c) => new THREE.Color(c).toArray());
    this.hand = new Hand(size);
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true, stencil: true });
    this.renderer.localClippingEnabled = true;
    this.camera.up.set(0, 0, 1);
    this.controls = new OrbitControls(this.camera, this.hand as unknown as HTMLElement);
    this.controls.enableDamping = false;
    this.controls.addEventListener('change', () => this.draw());
    this.controls.addEventListener('start', () => this.hold(true));
    this.controls.addEventListener('end', () => this.hold(false));
    const sun = new THREE.DirectionalLight(0xffffff, 2.1);
    sun.position.set(-0.4, -0.7, 1);
    this.scene.add(new THREE.HemisphereLight(0xffffff, 0xb8a888, 1.5), sun);
    this.resize(size);
  }

  draw(): void {
    this.isStale = true;
    if (this.isDrawing) return;
    this.isDrawing = true;
    requestAnimationFrame(() => void this.render());
  }

  /** Whether it shows all it was told. */
  get isDrawn(): boolean {
    return !this.isStale && !this.isDrawing;
  }

  /** Draws, one picture at a time: the next one waits until the graphics side has finished, and shows what was told meanwhile. */
  private async render(): Promise<void> {
    if (this.isGone) return;
    this.isStale = false;
    this.paint();
    await this.finished();
    this.isDrawing = false;
    if (this.isStale && !this.isGone) return this.draw();
    this.onDrawn();
    void this.solid?.prepare();
  }

  /** A hand takes hold of the picture, or lets go of it: what is large is drawn leaner until it rests. */
  private hold(isHeld: boolean): void {
    clearTimeout(this.resting);
    if (isHeld) this.fitted = undefined;
    if (isHeld) return this.lean(true);
    this.resting = setTimeout(() => {
      this.lean(false);
      this.draw();
    }, REST);
  }

  private lean(isMoved: boolean): void {
    const isLean = this.solid?.move(isMoved);
    const edges = this.groups.get('solid-edges');
    if (edges) edges.visible = !isLean;
  }

  private paint(): void {
    this.renderer.render(this.scene, this.camera);
    this.letGo();
  }

  /** Waits until the graphics side has done what it was asked, looking now and then. */
  private async finished(): Promise<void> {
    const gl = this.renderer.getContext() as WebGL2RenderingContext;
    const fence = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
    gl.flush();
    while (fence && !this.isGone && !gl.isContextLost()) {
      if (gl.getSyncParameter(fence, gl.SYNC_STATUS) === gl.SIGNALED) break;
      await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN));
    }
    gl.deleteSync(fence);
  }

  /** A hand on the picture turns, shifts and enlarges it. */
  touch(touch: Touch): void {
    this.hand.feel(touch);
  }

  /** The point of the stock seen at a place of the picture, each from -1 to 1; undefined where there is none. */
  seenAt(x: number, y: number): Vec3 | undefined {
    if (!this.surface) return undefined;
    const ray = new THREE.Raycaster();
    ray.setFromCamera(new THREE.Vector2(x, y), this.camera);
    const point = ray.intersectObject(this.surface.mesh)[0]?.point;
    return point && { x: point.x, y: point.y, z: point.z };
  }

  /** The faces of the solid under a place of the picture, the nearest first; undefined where no solid is shown. */
  facesAt(x: number, y: number): MetFace[] | undefined {
    const { solid } = this;
    if (!solid) return undefined;
    const { width, height } = this.hand.size;
    const met = (dx: number, dy: number) => {
      const ray = new THREE.Raycaster();
      ray.setFromCamera(new THREE.Vector2(x + (2 * dx) / width, y + (2 * dy) / height), this.camera);
      return solid.met(ray);
    };
    const [first, ...behind] = met(0, 0);
    // What a finger also covers comes next, the smallest first; then what is hidden.
    const beside = Array.from({ length: 8 }, (_, k) => (k * Math.PI) / 4)
      .flatMap((a) => met(FINGER * Math.cos(a), FINGER * Math.sin(a)).slice(0, 1))
      .sort((a, b) => a.area - b.area);
    const all = [...(first ? [first] : []), ...beside, ...behind];
    return all.filter((f, i) => all.findIndex((g) => g.face === f.face) === i);
  }

  /** Shows a solid from the file it is kept as. */
  setSolid(file: Uint8Array | undefined): void {
    this.solid = file && SolidModel.from(file, this.palette);
    this.swap('solid', this.solid?.shown);
    this.setLines('solid-edges', this.solid && { positions: this.solid.edges }, {
      colour: this.palette.part,
      width: 1.3,
    });
    if (this.solid) this.box = this.solid.box;
  }

  /** Lights faces of the solid. */
  setChosen(faces: number[]): void {
    this.solid?.choose(faces);
    this.draw();
  }

  /** Cuts the solid open at a plane; whole without one. */
  setSection(plane: SectionPlane | undefined): void {
    const planes = this.solid?.section(plane) ?? [];
    const edges = this.groups.get('solid-edges') as THREE.Mesh | undefined;
    if (edges) (edges.material as THREE.Material).clippingPlanes = planes;
    this.draw();
  }

  /** The picture as it stands, as a PNG. */
  async picture(): Promise<Uint8Array> {
    this.paint();
    const blob = await this.canvas.convertToBlob();
    return new Uint8Array(await blob.arrayBuffer());
  }

  resize(size: Size): void {
    const { width: w, height: h, ratio } = size;
    if (!w || !h) return;
    this.hand.size = size;
    this.renderer.setPixelRatio(ratio);
    this.renderer.setSize(w, h, false);
    if (this.fitted) return this.fit(this.fitted);
    const half = (this.camera.top - this.camera.bottom) / 2;
    this.camera.left = (-half * w) / h;
    this.camera.right = (half * w) / h;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  private swap(name: string, object?: THREE.Object3D): void {
    const old = this.groups.get(name);
    this.groups.delete(name);
    if (object) {
      this.groups.set(name, object);
      this.scene.add(object);
    }
    if (old) {
      this.scene.remove(old);
      this.replaced.push(old);
    }
    this.draw();
  }

  /** Frees what is no longer in the picture. */
  private letGo(): void {
    for (const old of this.replaced.splice(0)) {
      old.traverse((o) => {
        const mesh = o as THREE.Mesh;
        mesh.geometry?.dispose();
        (Array.isArray(mesh.material) ? mesh.material : [mesh.material]).forEach((m) => m?.dispose());
      });
    }
  }

  /** Shows a piece as it was cut, or a raw one. */
  setStock(stock: SurfaceView | StockModel): void {
    const view = 'height' in stock ? stock : rawSurface(stock);
    const geometry = surfaceGeometry(view);
    const material = new THREE.MeshStandardMaterial({
      vertexColors: true,
      roughness: 0.85,
      metalness: 0,
      flatShading: true,
      polygonOffset: true,
      polygonOffsetFactor: 3,
      polygonOffsetUnits: 6,
      // Where no metal is left there is nothing to be seen.
      clippingPlanes: [new THREE.Plane(new THREE.Vector3(0, 0, 1), -view.bottom - NOTHING_LEFT)],
    });
    const mesh = new THREE.Mesh(geometry, material);
    this.surface = { mesh, view };
    this.colour(view.height);
    this.box = new THREE.Box3(
      new THREE.Vector3(view.x0, view.y0, view.bottom),
      new THREE.Vector3(view.x0 + view.nx * view.cell, view.y0 + view.ny * view.cell, view.top),
    );
    this.swap('surface', mesh);
  }

  /** Colours the stock by how far it is from what is allowed; plain without. */
  setAllowed(allowed: Allowed | undefined): void {
    this.allowed = allowed;
    if (this.surface) this.colour(this.heights);
    this.draw();
  }

  private colour(height: Float32Array): void {
    this.heights = height;
    const { mesh, view } = this.surface!;
    const attribute = mesh.geometry.getAttribute('color') as THREE.BufferAttribute;
    const { allowed } = this;
    const off = this.allowed && isSame(height, view.height) ? view.off : undefined;
    fillColours(
      attribute.array as Float32Array,
      view,
      allowed && allowed.high.length === height.length
        ? (i) => this.shades[shadeOf(off ? off[i] : deviation(allowed, i, height[i], -1))]
        : () => this.plain,
    );
    attribute.needsUpdate = true;
  }

  /** New heights on the same grid. */
  setHeights(height: Float32Array): void {
    if (!this.surface || height.length !== this.surface.view.height.length) return;
    const attribute = this.surface.mesh.geometry.getAttribute('position') as THREE.BufferAttribute;
    fillHeights(attribute.array as Float32Array, this.surface.view, height);
    attribute.needsUpdate = true;
    if (this.allowed) this.colour(height);
    else this.heights = height;
    this.draw();
  }

  setLines(
    name: string,
    segments: Segments | undefined,
    look: {
      colour?: string;
      width?: number;
      opacity?: number;
      dashed?: boolean;
      above?: boolean;
      order?: number;
      behind?: boolean;
    },
  ): void {
    if (!segments || segments.positions.length === 0) return this.swap(name);
    const geometry = new LineSegmentsGeometry();
    geometry.setPositions(segments.positions);
    if (segments.colours) geometry.setColors(segments.colours);
    const material = new LineMaterial({
      color: segments.colours ? 0xffffff : new THREE.Color(look.colour).getHex(),
      vertexColors: !!segments.colours,
      linewidth: look.width ?? 1.2,
      dashed: !!look.dashed,
      dashSize: 2,
      gapSize: 2,
      transparent: look.order !== undefined || (look.opacity ?? 1) < 1,
      opacity: look.opacity ?? 1,
      depthTest: !look.above,
      depthWrite: !look.behind && (look.opacity ?? 1) >= 1,
    });
    const lines = new LineSegments2(geometry, material);
    lines.renderOrder = look.order ?? 0;
    if (look.dashed) lines.computeLineDistances();
    this.swap(name, lines);
  }

  /** The path, coloured by bite over a darker core so that the palest step still reads on paper. */
  setPath(cut: Segments | undefined, rapid: Segments | undefined): void {
    this.setLines('path-back', cut && { positions: cut.positions }, {
      colour: this.palette.ink,
      width: PATH_WIDTH + 1,
      behind: true,
      order: 1,
    });
    this.setLines('path', cut, { colour: this.palette.quiet, width: PATH_WIDTH, order: 2 });
    this.setLines('rapid', rapid, { colour: this.palette.quiet, width: 1, dashed: true, opacity: 0.7 });
  }

  setFixtures(boxes: FixtureBox[]): void {
    this.held = new THREE.Box3();
    for (const b of boxes)
      this.held
        .expandByPoint(new THREE.Vector3(b.minX, b.minY, b.minZ))
        .expandByPoint(new THREE.Vector3(b.maxX, b.maxY, b.maxZ));
    this.swap('fixtures', fixtureModels(boxes, this.palette));
    if (this.fitted) this.fit(this.fitted);
  }

  setZero(p: Vec3): void {
    this.setLines('zero', { positions: zeroArms(p) }, { colour: this.palette.accent, width: 3, above: true });
  }

  setTool(tool: Tool | undefined): void {
    this.swap('tool', tool && toolModel(tool, this.palette));
  }

  moveTool({ x, y, z }: Vec3): void {
    this.groups.get('tool')?.position.set(x, y, z);
    this.draw();
  }

  /** Pins where somebody probed, and the way between two of them. */
  setPins(points: Vec3[]): void {
    this.setLines(
      'pins',
      { positions: pins(points) },
      { colour: this.palette.accent, width: 3, above: true, order: 3 },
    );
  }

  /** A flag where something is wrong. */
  setMarks(points: Vec3[]): void {
    this.swap('marks', flags(points, this.palette));
  }

  fit(angle: Angle = 'corner'): void {
    this.fitted = angle;
    const box = this.box.clone().union(this.held);
    const centre = box.getCenter(new THREE.Vector3());
    const direction = new THREE.Vector3(...DIRECTIONS[angle]).normalize();
    const { width: w, height: h } = this.hand.size;
    const aspect = w && h ? w / h : 1;
    const [dx, dy, dz] = box.getSize(new THREE.Vector3()).toArray();
    const side = new THREE.Vector3().crossVectors(new THREE.Vector3(0, 0, 1), direction).normalize();
    const up = new THREE.Vector3().crossVectors(direction, side);
    const extent = (v: THREE.Vector3) => (Math.abs(v.x) * dx + Math.abs(v.y) * dy + Math.abs(v.z) * dz) / 2;
    const half = Math.max(extent(up), extent(side) / aspect) * 1.06;
    this.camera.top = half;
    this.camera.bottom = -half;
    this.camera.left = -half * aspect;
    this.camera.right = half * aspect;
    this.camera.zoom = 1;
    this.controls.target.copy(centre);
    this.camera.position.copy(centre).addScaledVector(direction, 500);
    this.camera.updateProjectionMatrix();
    this.controls.update();
    this.draw();
  }

  dispose(): void {
    this.isGone = true;
    for (const name of [...this.groups.keys()]) this.swap(name);
    this.letGo();
    this.controls.dispose();
    this.renderer.dispose();
    this.renderer.forceContextLoss();
  }
}

/** Whether the piece stands as it does in the end, which was judged more finely than the picture is. */
const isSame = (a: Float32Array, b: Float32Array) => a === b || a.every((h, i) => h === b[i]);
