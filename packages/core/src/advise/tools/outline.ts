import { suggestBite } from '../../cutting/bite';
import { cutState } from '../../cutting/cut';
import { area, offset, thinned } from '../../geometry/plane/clip';
import { regionOf } from '../../part/plate/model';
import { Tool, cutsWalls, finishesWalls } from '../../shop/tool';
import {
  Asked,
  COARSE,
  cutOf,
  REACHED,
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
  const whole = area(coarse);
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
    const r = tool.diameter / 2;
    const rest = Math.max(0, area(offset(offset(coarse, r, COARSE), -r, COARSE)) - whole) / whole;
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
    if (rest > REACHED) {
      cautions.push('too large for the inside corners of the outline');
      rank *= WORSE.rest;
    }
    rank *= steppedWall(a, tool, depth, cautions);
    if (!finishesWalls(tool)) cautions.push('its notched flutes leave a rough wall');
    reasons.push(`bends ${a.long(Math.round(state.deflection * 1000) / 1000)} at the tip`);
    ranked.push({
      tool,
      role: rest > REACHED || !finishesWalls(tool) ? 'roughs' : 'does it',
      kind: 'contour',
      reasons,
      cautions,
      bite: { ae: situation.ae, ap: situation.ap },
      suggestion,
      rank,
    });
  }
  return { ranked, unfit, buy: ranked.length ? undefined : buyMill(a, 12, depth) };
}
