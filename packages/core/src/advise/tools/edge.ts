import { Tool, flankAngle, formOf } from '../../shop/tool';
import { Asked, cutOf, Advice, Advised } from './common';

/** Anything with a flank: chamfer mills, spot drills, thread mills. */
export function edgeAdvice(a: Asked, rack: Tool[]): Advised {
  const ranked = rack.flatMap((tool): Advice[] => {
    const angle = flankAngle(tool);
    if (angle === undefined) return [];
    const { bite, suggestion } = cutOf(a, { ae: 0.5, ap: 0.5 }, tool);
    if (!suggestion.possible) return [];
    const square = Math.abs(angle - 45) < 0.5;
    return [
      {
        tool,
        role: 'breaks the edge',
        reasons: [`a flank at ${angle}° to its axis${square ? ': an even edge' : ''}`],
        cautions: square ? [] : ['leaves an edge that is not at 45°'],
        bite,
        suggestion,
        rank: (square ? 1 : 10) + tool.flutes * -0.1 + (formOf(tool) === 'cone' ? 0 : 1),
      },
    ];
  });
  return { ranked, unfit: [], buy: ranked.length ? undefined : `Chamfer mill 90°, ${a.long(6)} or more` };
}
