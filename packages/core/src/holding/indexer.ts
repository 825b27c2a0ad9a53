import { standing } from '../geometry/space/box';
import { formatNumber } from '../quantity/units';
import { Parameter } from '../quantity/parameter';
import { Contact, HoldingKind, Placed, SIZES, boundsOfWork, startAt } from './holding';
import { finding } from '../quantity/finding';
import { towards } from './towards';

export class IndexerParams {
  @Parameter({
    label: 'Grips',
    help: 'How much of the left end stands in the chuck.',
    unit: 'length',
    min: 1,
    max: 500,
    step: 1,
  })
  grip!: number;
  @Parameter({
    label: 'Chuck diameter',
    group: SIZES,
    help: 'About the axis the work lies along, which is X.',
    unit: 'length',
    min: 10,
    max: 1000,
    step: 5,
  })
  diameter!: number;
  @Parameter({
    label: 'Centre height',
    group: SIZES,
    help: 'Of the axis above the table.',
    unit: 'length',
    min: 10,
    max: 1000,
    step: 5,
  })
  height!: number;
  @Parameter({
    label: 'Force',
    help: 'Of all jaws together: a chuck of 125 mm 20 kN.',
    unit: 'force',
    min: 0.1,
    max: 500,
    step: 1,
  })
  force!: number;
  @Parameter({
    label: 'Tailstock',
    help: 'Force of its centre at the right end; 0 for none.',
    unit: 'force',
    min: 0,
    max: 100,
    step: 0.5,
  })
  tail!: number;
  @Parameter({ label: 'Friction', help: '0.15 smooth, 0.3 serrated.', unit: 'number', min: 0.02, max: 0.8, step: 0.05 })
  friction!: number;
}

/** Lengths of the chuck, and of the tailstock's point and body, mm. */
const CHUCK = 60;
const POINT = 15;
const BODY = 50;

export const indexer: HoldingKind<IndexerParams> = {
  kind: 'indexer',
  title: 'Indexer with a tailstock',
  help: 'Holds what lies along X, and turns it by hand from setup to setup.',
  Params: IndexerParams,
  starts: (work) => {
    const { minX, maxX } = boundsOfWork(work);
    return {
      grip: startAt(Math.min(20, (maxX - minX) / 5), 1),
      diameter: 125,
      height: 100,
      force: 20,
      tail: 2,
      friction: 0.15,
    };
  },
  place(params, work, name): Placed {
    const { grip, diameter, height, force, tail, friction } = params;
    const box = boundsOfWork(work);
    const { wide, deep, rect, at } = towards('back', box);
    const { top, bottom } = work.stock;
    const axis = (top + bottom) / 2;
    const [low, high] = [deep / 2 - diameter / 2, deep / 2 + diameter / 2];
    const [down, up] = [axis - height, axis + diameter / 2];
    const chuck = `Chuck of ${name}`;
    const head = standing(chuck, rect(Math.min(0, grip - CHUCK), 0, low, high), down, up);
    const round = [
      ...(low < 0 ? [standing(chuck, rect(0, grip, low, 0), down, up)] : []),
      ...(high > deep ? [standing(chuck, rect(0, grip, deep, high), down, up)] : []),
      ...(up > top ? [standing(chuck, rect(0, grip, low, high), top, up)] : []),
    ];
    const tails = tail
      ? [
          standing(`Centre of ${name}`, rect(wide, wide + POINT, deep / 2 - 4, deep / 2 + 4), axis - 4, axis + 4),
          standing(
            `Tailstock of ${name}`,
            rect(wide + POINT, wide + POINT + BODY, deep / 2 - 25, deep / 2 + 25),
            axis - height,
            axis + 25,
          ),
        ]
      : [];
    const side = (v: number, sign: number): Contact => ({
      ...{ name: head.name, low: axis - 0.5, high: axis + 0.5 },
      ...{ from: at(0, v), to: at(grip, v), into: { x: 0, y: sign } },
    });
    const slip = friction * force * 1000 + tail * 1000;
    const tip = (force * 1000 * grip) / 2 + tail * 1000 * wide * (tail ? 0.5 : 0);
    return {
      bodies: [head, ...round, ...tails],
      fixed: head,
      contacts: [side(0, 1), side(deep, -1)],
      strength: {
        ...{ slip, lift: slip, tip, about: axis },
        working: [
          `Slips at μ·F + the tailstock = ${formatNumber(slip / 1000, 2)} kN`,
          `Tips at F·g/2${tail ? ' + the tailstock over half the length' : ''} = ${formatNumber(tip / 1000, 1)} N·m`,
        ],
      },
      under: { what: 'air', height: height - (axis - bottom) },
      findings:
        deep > diameter ? [finding('chuck-too-small', { name, across: deep, diameter }, { field: 'diameter' })] : [],
    };
  },
};
