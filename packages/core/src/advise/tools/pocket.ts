import { suggestBite } from '../../cutting/bite';
import { cutState } from '../../cutting/cut';
import { suggestFinish } from '../../cutting/entries';
import { Tool, cutsFloors, cutsWalls, finishesWalls, formOf, startsHoles } from '../../shop/tool';
import { aroundFloor } from '../../part/plate/around-floor';
import { openingsOf } from '../../operation/hole/openings';
import {
  Asked,
  cutOf,
  REACHED,
  WORSE,
  isLapClear,
  reachOf,
  chipRoom,
  bending,
  tooShort,
  notForWalls,
  steppedWall,
  STOCK_SIZES,
  buyMill,
  Role,
  Advice,
  Advised,
} from './common';

/** What a mill of any size leaves on walls for their last lap, mm: about. */
const LEFT = 0.2;

/** A tool’s corner makes a foot that is off by so much of it. */
const FOOT = 0.02;

/** Mills that fit the pocket, reach its floor and its corners; ranked by time in cut and what speaks against them. */
export function pocketAdvice(a: Asked, rack: Tool[]): Advised {
  const depth = a.feature.through ? a.model.thickness : a.feature.depth;
  const around = aroundFloor(a.model, a.feature.id);
  const { wall } = around;
  const reach = reachOf(around);
  const ranked: Advice[] = [];
  const unfit: Advised['unfit'] = [];
  for (const tool of rack.filter(cutsWalls)) {
    const fail = (why: string) => unfit.push({ tool, why });
    const other = notForWalls(tool);
    if (other) {
      fail(other);
      continue;
    }
    if (!reach.takes(tool.diameter)) {
      fail(`${a.long(tool.diameter)} does not fit: ${a.long(reach.widest)} at the widest`);
      continue;
    }
    if (!cutsFloors(tool) || tool.cornerRadius >= tool.diameter / 2) {
      fail('a ball leaves no level floor');
      continue;
    }
    const short = tooShort(a, tool, depth, wall);
    if (short) {
      fail(short);
      continue;
    }
    const bite = suggestBite(tool, a.job.material, a.job.machine, a.job.boldness);
    const ap = Math.min(bite.ap, depth);
    const { situation, suggestion } = cutOf(a, { ...bite, ap }, tool);
    if (!suggestion.possible) {
      fail(suggestion.limitText);
      continue;
    }
    const { removalRate } = cutState({ ...situation, rpm: suggestion.rpm, feed: suggestion.feed });
    const minutes = (reach.area * depth) / 1000 / removalRate;
    const rest = reach.left(tool.diameter / 2);
    const reasons: string[] = [];
    const cautions: string[] = [];
    let rank = minutes * chipRoom(a, tool, reasons, cautions) * bending(a, situation, suggestion, cautions);
    reasons.push(`flutes of ${a.long(tool.fluteLength)} reach ${a.long(wall)}`);
    rank *= steppedWall(a, tool, wall, cautions);
    const { foot = 0 } = a.feature;
    const isFoot = foot === 0 || Math.abs(tool.cornerRadius - foot) <= FOOT * foot;
    const fillsNeck = reach.hasNeck(tool.diameter / 2, suggestFinish(tool).allowance);
    // A wall is finished in one lap, over all of its height.
    const isStepped = tool.fluteLength < wall;
    const role: Role = rest > REACHED || !finishesWalls(tool) || !isFoot || isStepped ? 'roughs' : 'does it';
    if (!finishesWalls(tool)) cautions.push('its notched flutes leave a rough wall');
    if (rest > REACHED) {
      cautions.push(`leaves ${Math.round(rest * 1000) / 10} % of the area in corners and necks for a smaller tool`);
      rank *= WORSE.rest;
    } else if (fillsNeck) {
      cautions.push('it fills a neck: a lap along the walls cuts there on both sides at once');
      rank *= WORSE.rest;
    } else if (reach.left((tool.diameter / 2) * 1.15) > REACHED) {
      cautions.push('its radius is that of the corners, so it turns on the spot there');
      rank *= WORSE.tight;
    } else reasons.push('room to turn in every corner');
    if (!isFoot)
      cautions.push(`the foot of its walls is round, ${a.long(foot)}: another corner leaves or cuts into it`);
    else if (foot > 0) reasons.push(`its corner makes the round foot of ${a.long(foot)}`);
    else if (tool.cornerRadius > 0) cautions.push(`leaves a radius of ${a.long(tool.cornerRadius)} at the floor`);
    if (!tool.centreCutting) cautions.push('its end does not cut to the centre: enter by a helix or ramp');
    const room = tool.diameter < reach.widest ? reach.widest - tool.diameter : undefined;
    ranked.push({
      ...{ tool, role, kind: 'pocket', minutes, reasons, cautions, room },
      ...(isStepped && { isStepped }),
      ...(fillsNeck && isLapClear(a.feature, around.region, tool.diameter / 2) && { opensNeck: true }),
      bite: { ...bite, ap },
      suggestion,
      rank,
    });
  }
  ranked.push(...openers(a, rack));
  const done = ranked.some((r) => r.role === 'does it');
  const fitting =
    STOCK_SIZES.filter((d) => reach.takes(d) && reach.left(d / 2) <= REACHED && !reach.hasNeck(d / 2, LEFT)).pop() ??
    reach.widest * 0.7;
  return { ranked, unfit, buy: done ? undefined : buyMill(a, fitting, wall, a.feature.foot, reach.widest) };
}

/** The largest drill that has room in the pocket and leaves its floor whole: it roughs it, and a mill goes down in its hole. */
function openers(a: Asked, rack: Tool[]): Advice[] {
  const depth = a.feature.through ? a.model.thickness : a.feature.depth;
  const drills = rack.filter((t) => formOf(t) === 'drill' && !startsHoles(t) && t.fluteLength >= depth);
  const fits = (tool: Tool) =>
    openingsOf(a.feature, a.model, tool).every((hole) => hole.depth > 0 && hole.diameter >= tool.diameter);
  for (const tool of drills.sort((x, y) => y.diameter - x.diameter)) {
    if (!fits(tool)) continue;
    const { bite, suggestion } = cutOf(a, { ae: tool.diameter, ap: tool.diameter }, tool);
    const reasons = ['opens it: a mill goes down in its hole', `${a.long(tool.diameter)} is the widest that has room`];
    if (suggestion.possible)
      return [{ tool, role: 'opens', kind: 'drill', reasons, cautions: [], bite, suggestion, rank: 1 }];
  }
  return [];
}
