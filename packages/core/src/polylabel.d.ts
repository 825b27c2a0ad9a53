declare module 'polylabel' {
  /** Centre of the largest circle inside a polygon (outer ring, then holes); `distance` is its radius. */
  export default function polylabel(polygon: number[][][], precision?: number): [number, number] & { distance: number };
}
