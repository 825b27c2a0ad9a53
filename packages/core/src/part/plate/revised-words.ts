/** What changed in a revision, in words. */
import { LengthUnit, formatLength } from '../../quantity/units';
import { Feature } from './feature';
import { Change, SAME, placeOf } from './revised';
import { placements } from './placed';
import { distance } from '../../geometry/plane/point';

/** Sizes of a shape by their names. */
function namedSizes({ shape, counterbore }: Feature): [string, number][] {
  const seat: [string, number][] = counterbore
    ? [
        ['counterbore', counterbore.diameter],
        ['depth of its counterbore', counterbore.depth],
      ]
    : [];
  if (shape.type === 'round') return [['diameter', shape.diameter], ...seat];
  if (shape.type === 'rectangle')
    return [
      ['width', shape.width],
      ['height', shape.height],
      ['corners', shape.radius],
    ];
  if (shape.type === 'slot')
    return [
      ['length', shape.length],
      ['width', shape.width],
    ];
  return [];
}

function differences(was: Feature, is: Feature, unit: LengthUnit): string[] {
  const long = (mm: number) => formatLength(Math.round(mm * 1000) / 1000, unit);
  const away = distance(placeOf(was), placeOf(is));
  const old = new Map(namedSizes(was));
  const sizes = namedSizes(is).flatMap(([name, now]) => {
    const before = old.get(name);
    if (before === undefined) return [`${name} ${long(now)}, new`];
    return Math.abs(before - now) > SAME ? [`${name} ${long(before)}, now ${long(now)}`] : [];
  });
  const depth = (f: Feature) => (f.through ? 'through' : `${long(f.depth)} deep`);
  const deep = was.through !== is.through || Math.abs(was.depth - is.depth) > SAME;
  const edge = ({ edge: e }: Feature) =>
    e ? `${e.form === 'round' ? 'rounded' : 'chamfered'} ${long(e.size)}` : 'sharp';
  const [many, now] = [placements(was.pattern).length, placements(is.pattern).length];
  return [
    ...(away > SAME ? [`moved by ${long(away)}`] : []),
    ...sizes,
    ...(deep ? [`${depth(was)}, now ${depth(is)}`] : []),
    ...(was.faces && is.faces && edge(was) !== edge(is) ? [`edge ${edge(was)}, now ${edge(is)}`] : []),
    ...(many !== now ? [`${many} of them, now ${now}`] : []),
  ];
}

/** "Hole 4.2: 14 mm deep, now 16 mm deep." */
export function changeText({ kind, feature, before }: Change, unit: LengthUnit): string {
  if (kind === 'added') return `${feature.name}: new`;
  if (kind === 'removed') return `${feature.name}: no longer there`;
  const said = before ? differences(before, feature, unit) : [];
  return `${feature.name}: ${said.length > 0 ? said.join('; ') : 'its line is another'}`;
}
