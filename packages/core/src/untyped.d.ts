declare module 'polylabel' {
  /** Centre of the largest circle inside a polygon (outer ring, then holes); `distance` is its radius. */
  export default function polylabel(polygon: number[][][], precision?: number): [number, number] & { distance: number };
}

declare module 'class-transformer/cjs/storage' {
  import type { IOptions } from 'class-validator-jsonschema/build/options';
  export const defaultMetadataStorage: IOptions['classTransformerMetadataStorage'];
}

declare module 'occt-import-js' {
  import type { StepReader } from './part/solid/read/step';
  /** Makes a reader of STEP files; one for each file, as a broken one may spoil it. */
  export default function start(options?: object): Promise<StepReader>;
}
