import { roundPost } from '../geometry/space/box';
import { finding } from '../quantity/finding';
import { FeatureChoice, Parameter } from '../quantity/parameter';
import { HoldingKind, Placed, startAt } from './holding';

export class PinParams {
  @FeatureChoice({
    label: 'In',
    help: 'The holes of the part the pins stand in; the first is where a zero can be.',
    features: ['hole'],
  })
  holes!: string;
  @Parameter({
    label: 'Stands up',
    help: 'How far it reaches up into the work.',
    unit: 'length',
    min: 0.5,
    max: 300,
    step: 0.5,
  })
  height!: number;
}

export const pins: HoldingKind<PinParams> = {
  kind: 'pins',
  title: 'Dowel pins',
  help: 'They say where the work stands and hold nothing down: clamps or screws do.',
  Params: PinParams,
  starts: ({ features, stock }) => ({
    holes: features.find((f) => f.meaning === 'hole' && f.through)?.id ?? '',
    height: startAt((stock.top - stock.bottom) / 2),
  }),
  place({ holes, height }, work, name): Placed {
    const found = work.model.holes.filter((h) => h.feature === holes);
    const { bottom } = work.stock;
    const posts = found.map((h, i) =>
      roundPost(`Pin ${i + 1} of ${name}`, h.centre, h.diameter, bottom, bottom + height),
    );
    return {
      bodies: posts,
      fixed: posts[0],
      contacts: [],
      needs: holes,
      findings: found.length ? [] : [finding('no-pin-holes', { name }, { field: 'holes' })],
    };
  },
};
