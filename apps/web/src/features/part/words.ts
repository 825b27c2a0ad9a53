import { PATTERN_WORDS } from '../../ui/PatternFields';
import type { Feature, LengthUnit, Limited, Meaning, Shape } from '@tidypath/core';
import { formatLength, formatNumber, leanText, limitsOf, limitsText, placements } from '@tidypath/core';

export const MEANING_WORDS: Record<Meaning, string> = {
  outline: 'outside of the part',
  notch: 'notch in the outside',
  pocket: 'pocket',
  boss: 'boss',
  hole: 'hole',
  edge: 'edge to break',
  line: 'line to engrave',
  ignore: 'ignore',
};

export const SHAPE_WORDS: Record<Shape['type'], string> = {
  rectangle: 'rectangle',
  round: 'round',
  slot: 'slot',
  polygon: 'polygon',
  chain: 'drawn',
  text: 'text',
};

function sizeWords(feature: Feature, unit: LengthUnit): string {
  const { shape } = feature;
  const l = (mm: number, size?: Limited) => {
    const limits = size && limitsOf(feature, size);
    return `${formatLength(mm, unit)}${limits ? ` ${limitsText(limits, unit)}` : ''}`;
  };
  switch (shape.type) {
    case 'rectangle':
      return `${l(shape.width, 'width')} × ${l(shape.height, 'height')}${shape.radius > 0 ? `, corners ${l(shape.radius)}` : ''}`;
    case 'round':
      return `⌀ ${l(shape.diameter, 'diameter')}`;
    case 'slot':
      return `slot ${l(shape.length, 'length')} × ${l(shape.width, 'width')}`;
    case 'polygon':
      return `${shape.sides} sides, ${l(shape.across, 'across')} across`;
    case 'chain':
      return shape.closed ? 'drawn' : 'drawn, open';
    case 'text':
      return `“${shape.text}”, ${l(shape.height)} high`;
  }
}

/** A feature in one line: what it means, its size, its depth, how often. */
export function featureWords(f: Feature, unit: LengthUnit): string {
  const times = f.pattern.type === 'single' ? '' : `, ${placements(f.pattern).length} ${PATTERN_WORDS[f.pattern.type]}`;
  const l = (mm: number) => formatLength(mm, unit);
  const mouth = f.from ? `, mouth ${l(f.from)} down` : '';
  const depth =
    f.meaning === 'pocket' || f.meaning === 'hole'
      ? `${f.through ? `, through${f.ends ? ` at ${l(f.ends)}` : ''}` : `, ${l(f.depth)} deep`}${mouth}`
      : f.meaning === 'boss' && f.depth > 0
        ? `, top ${l(f.depth)} down`
        : '';
  const finish = f.finish ? `, Ra ${f.finish}` : '';
  const side = f.side ? `, from the ${f.side}` : '';
  return `${sizeWords(f, unit)}${depth}${side}${wallWords(f, unit)}${finish}${times}`;
}

/** How its walls stand, end and begin, where that is not upright and sharp. */
function wallWords({ edge, foot, taper, lean }: Feature, unit: LengthUnit): string {
  const l = (mm: number) => formatLength(mm, unit);
  return [
    edge && (edge.form === 'round' ? `edge rounded ${l(edge.size)}` : `edge chamfered ${l(edge.size)}`),
    foot && `foot rounded ${l(foot)}`,
    taper && `walls lean out ${formatNumber(taper, 2)}°`,
    lean && `leans ${leanText(lean)}`,
  ]
    .flatMap((words) => (words ? [`, ${words}`] : []))
    .join('');
}

/** A first shape of each sort, sized for the part at hand. */
export function firstShape(type: Exclude<Shape['type'], 'chain'>, size: number): Shape {
  switch (type) {
    case 'rectangle':
      return { type, width: size, height: size * 0.6, radius: size * 0.1 };
    case 'round':
      return { type, diameter: size * 0.5 };
    case 'slot':
      return { type, length: size, width: size * 0.35 };
    case 'polygon':
      return { type, sides: 6, across: size * 0.5 };
    case 'text':
      return { type, text: 'TEXT', height: size * 0.2 };
  }
}
