import { suggestBite } from '../../cutting/bite';
import { cutState } from '../../cutting/cut';
import { area, thinned } from '../../geometry/plane/clip';
import { regionOf } from '../../part/plate/model';
import { WORTH_TELLING, insideCorners } from '../../operation/milling/room';
import { Tool, cutsWalls, finishesWalls } from '../../shop/tool';
import {
  Asked,
  COARSE,
  cutOf,
  STOCK_SIZES,
  WORSE,
  chipRoom,
  bending,
  notForWalls,
  steppedWall,
  tooShort,
  buyMill,
  Advice,
  Advised,
} from './common';

/** Mills that run along a wall: ranked by feed and layers, bending and chip room. */
export function outlineAdvice(a: Asked, rack: Tool[]): Advised {
  const region = a.feature.meaning === 'outline' ? a.model.outline : regionOf(a.feature);
  const depth =
    a.feature.meaning === 'outline' ? (a.depth ?? a.model.thickness) : Math.max(...a.model.floors.map((f) => -f.z), 1);
  const coarse = thinned(region, COARSE);
  const left = (diameter: number) => area(insideCorners(coarse, diameter / 2));
  const ranked: Advice[] = [];
  const unfit: Advised['unfit'] = [];
  for (const tool of rack.filter(cutsWalls)) {
    if (tool.cornerRadius >= tool.diameter / 2) {
      unfit.push({ tool, why: 'a ball leaves no square foot' });
      continue;
    }
    const short = notForWalls(tool) ?? tooShort(a, tool, depth);
    if (short) {
      unfit.push({ tool, why: short });
      continue;
    }
    const rest = left(tool.diameter);
    const isWhole = rest < WORTH_TELLING;
    const bite = suggestBite(tool, a.job.material, a.job.machine, a.job.boldness);
    const { situation, suggestion } = cutOf(a, { ae: bite.ae, ap: Math.min(bite.ap, depth) }, tool);
    if (!suggestion.possible) {
      unfit.push({ tool, why: suggestion.limitText });
      continue;
    }
    const reasons = [`flutes of ${a.long(tool.fluteLength)} reach ${a.long(depth)}`];
    const cautions: string[] = [];
    const state = cutState({ ...situation, rpm: suggestion.rpm, feed: suggestion.feed });
    let rank = (100 / suggestion.feed) * Math.ceil(depth / situation.ap) * bending(a, situation, suggestion, cautions);
    rank *= chipRoom(a, tool, reasons, cautions);
    if (!isWhole) {
      cautions.push('too large for the inside corners of the outline');
      rank *= WORSE.rest;
    }
    rank *= steppedWall(a, tool, depth, cautions);
    if (!finishesWalls(tool)) cautions.push('its notched flutes leave a rough wall');
    reasons.push(`bends ${a.long(Math.round(state.deflection * 1000) / 1000)} at the tip`);
    ranked.push({
      tool,
      role: isWhole && finishesWalls(tool) ? 'does it' : 'roughs',
      rest,
      kind: 'contour',
      reasons,
      cautions,
      bite: { ae: situation.ae, ap: situation.ap },
      suggestion,
      rank,
    });
  }
  const done = ranked.some((r) => r.role === 'does it');
  const fitting = ranked.length > 0 ? STOCK_SIZES.filter((d) => left(d) < WORTH_TELLING).pop() : 12;
  return { ranked, unfit, buy: done || !fitting ? undefined : buyMill(a, fitting, depth, 0, Infinity) };
}
