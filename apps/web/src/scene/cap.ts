import * as THREE from 'three';

/** Drawn after what is cut, in this order. */
const [COUNTED, FILLED] = [1, 2];

/** One side of a surface that is not seen, only counted: up or down. */
function counted(
  geometry: THREE.BufferGeometry,
  plane: THREE.Plane,
  side: THREE.Side,
  by: THREE.StencilOp,
): THREE.Mesh {
  const material = new THREE.MeshBasicMaterial({
    side,
    clippingPlanes: [plane],
    colorWrite: false,
    depthWrite: false,
    depthTest: false,
    stencilWrite: true,
    stencilFail: by,
    stencilZFail: by,
    stencilZPass: by,
  });
  const mesh = new THREE.Mesh(geometry, material);
  mesh.renderOrder = COUNTED;
  return mesh;
}

/** Fills what a plane cuts of a closed surface: where more backs than fronts of it are seen, the plane is in the metal. */
export class Cap {
  readonly shown = new THREE.Group();
  private readonly fill: THREE.Mesh;
  private readonly middle = new THREE.Vector3();

  constructor(
    geometry: THREE.BufferGeometry,
    private readonly plane: THREE.Plane,
    color: string,
  ) {
    geometry.computeBoundingSphere();
    const { center, radius } = geometry.boundingSphere!;
    this.middle.copy(center);
    const material = new THREE.MeshStandardMaterial({
      color,
      roughness: 0.9,
      metalness: 0,
      side: THREE.DoubleSide,
      stencilWrite: true,
      stencilFunc: THREE.NotEqualStencilFunc,
      stencilFail: THREE.ReplaceStencilOp,
      stencilZFail: THREE.ReplaceStencilOp,
      stencilZPass: THREE.ReplaceStencilOp,
    });
    this.fill = new THREE.Mesh(new THREE.PlaneGeometry(2 * radius, 2 * radius), material);
    this.fill.renderOrder = FILLED;
    this.fill.onAfterRender = (renderer) => renderer.clearStencil();
    this.shown.add(
      counted(geometry, plane, THREE.BackSide, THREE.IncrementWrapStencilOp),
      counted(geometry, plane, THREE.FrontSide, THREE.DecrementWrapStencilOp),
      this.fill,
    );
  }

  /** Lies where the plane is now. */
  lie(): void {
    this.plane.projectPoint(this.middle, this.fill.position);
    this.fill.lookAt(this.fill.position.clone().add(this.plane.normal));
  }
}
