import { reamAllowance } from '../../cutting/holes';
import { Feature } from '../../part/plate/feature';
import { Hole, wallOf } from '../../part/plate/model';
import { Tool, cutsWalls, formOf, startsHoles } from '../../shop/tool';
import { hashOf } from '../../quantity/hash';
import { Chosen, MOST_TRIED, Proposal, RouteAsked, RoutePart, RouteStep, would } from './step';

/** Features that are the same hole in other places. */
function groupsOf({ job, model }: RouteAsked): { features: Feature[]; hole: Hole }[] {
  const groups = new Map<string, { features: Feature[]; hole: Hole }>();
  for (const feature of job.part.features.filter((f) => f.meaning === 'hole')) {
    const hole = model.holes.find((h) => h.feature === feature.id);
    if (!hole) continue;
    const { diameter, depth, through, counterbore } = hole;
    const key = hashOf({
      d: diameter.toFixed(3),
      depth,
      through,
      counterbore,
      thread: feature.thread,
      edge: feature.edge,
    });
    const known = groups.get(key);
    if (known) known.features.push(feature);
    else groups.set(key, { features: [feature], hole });
  }
  return [...groups.values()];
}

/** Mills that bore a hole on a helix: they leave no post and have room to turn. */
const BORES = { least: 0.1, most: 0.85 } as const;
/** How far a mill goes out below a through hole, mm. */
const BELOW = 1;
/** A mill so near to a seat's diameter goes straight down, mm. */
const SAME = 1e-3;

/** Mills that fit, the largest first. */
const millsFor = (rack: Tool[], fits: (d: number) => boolean, wall: number, deep = wall) =>
  rack
    .filter(
      (t) =>
        cutsWalls(t) &&
        t.cornerRadius === 0 &&
        t.centreCutting &&
        fits(t.diameter) &&
        t.fluteLength >= wall &&
        t.stickOut >= deep,
    )
    .sort((a, b) => b.diameter - a.diameter);

/** Of mills that fit a hole the one that was chosen for it, else the largest; the next smaller ones may be quicker. */
function oneOf(mills: Tool[], { id }: Feature, asked: RouteAsked): { mill?: Tool; others: Chosen[] } {
  const mill = mills.find((t) => t.id === asked.chosenFor({ id })?.tool) ?? mills[0];
  return {
    mill,
    others: mills
      .filter((t) => t !== mill)
      .slice(0, MOST_TRIED)
      .map((t) => ({ feature: id, tool: t.id })),
  };
}

/** Steps for some holes, and what else would mill them. */
type Opened = Pick<RoutePart, 'steps'> & { others: Chosen[] };

/** What makes the hole itself: a drill of its size, a smaller one and a reamer, or a mill on a helix. */
function openSteps(features: Feature[], hole: Hole, asked: RouteAsked): Opened {
  const ranked = asked.advise(features[0]).ranked;
  const drill = ranked.find((r) => r.role === 'does it' && formOf(r.tool) === 'drill');
  const reamer = ranked.find((r) => r.role === 'sizes');
  const least = hole.diameter - 2.5 * reamAllowance(hole.diameter);
  const opener = reamer && ranked.find((r) => r.role === 'opens' && r.tool.diameter >= least);
  const size = asked.long(hole.diameter);
  const only = (...steps: RouteStep[]): Opened => ({ steps, others: [] });
  if (reamer && opener)
    return only(
      {
        kind: 'drill',
        targets: features,
        tool: opener.tool,
        reason: `Drilled under size, so that the reamer has something to cut.`,
      },
      { kind: 'ream', targets: features, tool: reamer.tool, reason: `${size} to a fit: a reamer is in the rack.` },
    );
  if (drill) {
    const reasons = drill.reasons.slice(0, 2).join('; ');
    return only({
      kind: 'drill',
      targets: features,
      tool: drill.tool,
      reason: `${reasons.charAt(0).toUpperCase()}${reasons.slice(1)}.`,
    });
  }
  const fits = (d: number) => d >= BORES.least * hole.diameter && d <= BORES.most * hole.diameter;
  const below = hole.through ? BELOW : 0;
  const rack = asked.rackFor(features[0]);
  const mills = millsFor(rack, fits, wallOf(hole, asked.model) + below, hole.depth + below);
  const { mill, others } = oneOf(mills, features[0], asked);
  const reason = `No drill of ${size} in the rack: a helix makes any size.`;
  return { steps: mill ? [{ kind: 'helical-bore', targets: features, tool: mill, reason }] : [], others };
}

/** A spot where the drill would wander: not for stub drills, mills and carbide that starts by itself. */
function spotStep(features: Feature[], opens: RouteStep[], asked: RouteAsked): RouteStep[] {
  const [first] = opens;
  if (first?.kind !== 'drill' || first.tool.kind === 'stub-drill') return [];
  const spot = asked
    .advise(features[0])
    .ranked.find((r) => r.role === 'starts' && startsHoles(r.tool) && r.tool.kind === 'spot');
  return spot
    ? [{ kind: 'drill', targets: features, tool: spot.tool, reason: 'A spot gives the drill a true start.' }]
    : [];
}

/** What breaks the mouth of a hole by going straight down; without one it is milled. */
export function sinkOf({ edge }: Feature, hole: Hole, rack: Tool[]): Tool | undefined {
  if (edge?.form !== 'chamfer') return undefined;
  const widest = Math.max(hole.diameter, hole.counterbore?.diameter ?? 0) + 2 * edge.size;
  const isCone = (t: Tool) => startsHoles(t) || formOf(t) === 'cone';
  return rack.find((t) => isCone(t) && Math.abs(t.pointAngle - edge.angle) < 0.5 && t.diameter >= widest);
}

/** The wider mouth of holes, and their edge where a cone breaks it; what nothing in the rack makes of it. */
function mouthSteps(features: Feature[], hole: Hole, asked: RouteAsked): Opened & { lacks: string[] } {
  const rack = asked.rackFor(features[0]);
  const steps: RouteStep[] = [];
  const others: Chosen[] = [];
  const lacks: string[] = [];
  if (hole.counterbore) {
    const { diameter, depth } = hole.counterbore;
    const wall = wallOf({ ...hole, depth }, asked.model);
    const [same] = millsFor(rack, (d) => Math.abs(d - diameter) <= SAME, wall, depth);
    // Round the hole with room to turn, and no ring left between both.
    const round = (d: number) => d <= BORES.most * diameter && d > (diameter - hole.diameter) / 2;
    const one = oneOf(same ? [same] : millsFor(rack, round, wall, depth), features[0], asked);
    const { mill } = one;
    others.push(...one.others);
    if (mill)
      steps.push({
        kind: 'counterbore',
        targets: features,
        tool: mill,
        reason: 'The seat of the screw head, flat and square to the hole.',
      });
    else
      lacks.push(
        `nothing in the rack makes its seat of ${asked.long(diameter)}${would(`End mill up to ${asked.long(BORES.most * diameter)} that reaches ${asked.long(depth)}`)}`,
      );
  }
  const cone = sinkOf(features[0], hole, rack);
  if (cone)
    steps.push({
      kind: 'countersink',
      targets: features,
      tool: cone,
      reason: 'Mouths are broken before the thread is cut, so that its first turn is whole.',
    });
  return { steps, others, lacks };
}

function threadSteps(features: Feature[], asked: RouteAsked): RouteStep[] {
  const best = features[0].thread ? asked.advise(features[0]).ranked.find((r) => r.role === 'threads') : undefined;
  if (!best) return [];
  const reasons = best.reasons.slice(0, 2).join(': ');
  return [
    {
      kind: formOf(best.tool) === 'tap' ? 'tap' : 'thread-mill',
      targets: features,
      tool: best.tool,
      reason: `${reasons.charAt(0).toUpperCase()}${reasons.slice(1)}.`,
    },
  ];
}

/** Why a hole cannot be made, and with what it could be. */
function noWay(feature: Feature, hole: Hole, asked: RouteAsked): string {
  const wall = wallOf(hole, asked.model);
  const from = hole.depth - wall;
  const deep = `${asked.long(hole.diameter)}, ${asked.long(wall)} deep${from > 0 ? ` from ${asked.long(from)} down` : ''}`;
  return `nothing in the rack makes ${deep}${would(asked.advise(feature).buy)}`;
}

/** Holes of one kind together: spot, drill or bore, mouth, thread. Threads around bosses are milled. */
export function holeSteps(asked: RouteAsked): RoutePart {
  const steps: RouteStep[] = [];
  const missing: Proposal['missing'] = [];
  const spots: RouteStep[] = [];
  const others: Chosen[] = [];
  for (const { features, hole } of groupsOf(asked)) {
    const { steps: opens, others: bores } = openSteps(features, hole, asked);
    const mouth = mouthSteps(features, hole, asked);
    others.push(...bores, ...mouth.others);
    const lacks = (why: string) => missing.push(...features.map(({ name }) => ({ feature: name, why })));
    if (opens.length === 0) lacks(noWay(features[0], hole, asked));
    else mouth.lacks.forEach(lacks);
    const threads = opens.length > 0 ? threadSteps(features, asked) : [];
    if (features[0].thread && threads.length === 0) lacks(`nothing in the rack threads ${features[0].thread}`);
    spots.push(...spotStep(features, opens, asked));
    steps.push(...opens, ...mouth.steps, ...threads);
  }
  const threaded = asked.job.part.features.filter((f) => f.meaning === 'boss' && f.thread);
  const mill = threaded.length ? asked.rackFor(threaded[0]).find((t) => t.kind === 'thread-mill') : undefined;
  if (mill)
    steps.push({
      kind: 'thread-mill',
      targets: threaded,
      tool: mill,
      reason: 'A milled thread: any diameter, and no burr at its start.',
    });
  return { steps: [...spots, ...steps], missing, others };
}
