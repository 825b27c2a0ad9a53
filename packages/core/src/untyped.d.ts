declare module 'polylabel' {
  /** Centre of the largest circle inside a polygon (outer ring, then holes); `distance` is its radius. */
  export default function polylabel(polygon: number[][][], precision?: number): [number, number] & { distance: number };
}

declare module 'class-transformer/cjs/storage' {
  import type { IOptions } from 'class-validator-jsonschema/build/options';
  export const defaultMetadataStorage: IOptions['classTransformerMetadataStorage'];
}
