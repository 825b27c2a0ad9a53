/** What a file of a solid holds, whatever form it has. */
import { Finding } from '../../../quantity/finding';
import { Joined } from '../../../geometry/space/triangles';

/** One body of a file, its triangles joined. */
export interface ReadBody {
  name: string;
  mesh: Joined;
}

export const MODEL_UNITS = ['mm', 'cm', 'inch', 'm'] as const;
export type ModelUnit = (typeof MODEL_UNITS)[number];

/** mm in one of each. */
export const MM_IN: Record<ModelUnit, number> = { mm: 1, cm: 10, inch: 25.4, m: 1000 };

export type ModelForm = 'STEP' | 'STL' | 'OBJ' | '3MF' | 'surface';

/** A file as it was read, its lengths in mm. */
export interface ReadModel {
  form: ModelForm;
  bodies: ReadBody[];
  /** The unit it names; undefined where its form knows none. */
  unit?: ModelUnit;
  findings: Finding[];
}

/** More triangles than this are not taken. */
export const MOST_TRIANGLES = 2_000_000;
