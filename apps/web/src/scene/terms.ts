/** Straight pieces for drawing: six coordinates and six colour shares each. */
export interface Segments {
  positions: Float32Array;
  colours?: Float32Array;
}

export type Angle = 'corner' | 'top' | 'front';

/** Where each angle looks from. */
export const DIRECTIONS: Record<Angle, [number, number, number]> = {
  corner: [-0.75, -1, 0.95],
  top: [0, -0.0001, 1],
  front: [0, -1, 0.0001],
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
