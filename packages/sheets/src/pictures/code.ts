/** A code that a phone reads an address from. */
import { encode } from 'uqr';
import { Mark, Scene } from '../scene';

/** Quiet zone around it, modules. */
const QUIET = 4;
/** Modules overlap by this much, mm: no hairlines between them. */
const OVER = 0.01;

/** A code as wide as asked, its quiet zone included, mm. */
export function codeOf(text: string, width = 24): Scene {
  const { data, size } = encode(text, { ecc: 'M', border: 0 });
  const module = width / (size + 2 * QUIET);
  const side = module + OVER;
  const marks: Mark[] = [{ kind: 'rectangle', at: { x: 0, y: 0 }, width, height: width, fill: 'paper' }];
  data.forEach((row, i) =>
    row.forEach((dark, j) => {
      if (dark)
        marks.push({
          kind: 'rectangle',
          at: { x: (QUIET + j) * module, y: (QUIET + i) * module },
          ...{ width: side, height: side, fill: 'ink' },
        });
    }),
  );
  return { width, height: width, marks };
}
