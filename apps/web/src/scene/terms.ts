import type { FaceFacts, Vec3 } from '@tidypath/core';

/** Straight pieces for drawing: six coordinates and six colour shares each. */
export interface Segments {
  positions: Float32Array;
  colours?: Float32Array;
}

export const ANGLES = ['corner', 'top', 'front', 'right', 'back', 'left', 'underside', 'corner below'] as const;
export type Angle = (typeof ANGLES)[number];

/** Where each angle looks from. */
export const DIRECTIONS: Record<Angle, [number, number, number]> = {
  corner: [-0.75, -1, 0.95],
  top: [0, -0.0001, 1],
  front: [0, -1, 0.0001],
  right: [1, 0, 0.0001],
  back: [0, 1, 0.0001],
  left: [-1, 0, 0.0001],
  underside: [0, -0.0001, -1],
  'corner below': [-0.75, -1, -0.95],
};

/** Pixels of the picture on the page, and how many of the screen's make one of them. */
export interface Size {
  width: number;
  height: number;
  ratio: number;
}

/** What a pointer or wheel did, in pixels from the picture's corner. */
export interface Touch {
  type: string;
  x: number;
  y: number;
  pointerId: number;
  pointerType: string;
  button: number;
  deltaY: number;
  deltaMode: number;
  ctrlKey: boolean;
  metaKey: boolean;
  shiftKey: boolean;
}

/** A face of a solid under a tap: where it was met, and what is told of it. */
export interface MetFace extends FaceFacts {
  at: Vec3;
}

/** A plane that cuts a solid open: what lies beyond it along an axis is not shown. */
export interface SectionPlane {
  axis: 'x' | 'y' | 'z';
  /** mm along it. */
  at: number;
}
