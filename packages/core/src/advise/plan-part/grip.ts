/** The grips of a plan: from what blank, and in what. */
import { LengthUnit, formatLength, formatVolume } from '../../quantity/units';
import { Bar } from '../../shop/bar';
import { specificForce } from '../../cutting/milling';
import { BarWay, barWays } from '../../document/bars';
import { addSetup, upText, withSetup } from '../../document/edit';
import { Job, Setup, StockSpec } from '../../document/job';
import { emptySetup } from '../../document/new';
import { STOCK_AXES, StockAxis, stockSize } from '../../document/stock';
import { Part } from '../../part/plate/feature';
import { partModel } from '../../part/plate/model';
import { FACE_UPS, Face, faceOf } from '../../part/plate/turn';
import { groundOf } from '../../plan/ground';
import { addHolding, holdFindings } from '../../plan/holds';
import { Finding } from '../../quantity/finding';
import { LEAST_CONTACT, contactOn } from './orders';

/** Below the part, so that jaws have something to hold, and round it, mm. */
const HELD_BY = 9;
const ROUND = 2;
const ABOVE = 1;
/** Between what holds a blank and the part, mm: a cutter goes out below it there. */
const FREE = 3;

/** What the grip with a side up is called. */
const nameOf = (face: Face): string => {
  const text = upText({ face });
  return text[0].toUpperCase() + text.slice(1);
};

/** Metal above a part that is faced off rather than another blank bought, mm. */
const FACED_OFF = 25;

/** The stock of the first grip: sawn from the cheapest bar that gives it, else a block of its own size. */
function withStock(job: Job, setup: Setup, bars: Bar[]): { setup: Setup; said: string } {
  const asked = {
    ...setup.stock,
    ...{ shape: 'box' as const, left: ROUND, right: ROUND, front: ROUND, back: ROUND, top: ABOVE, bottom: HELD_BY },
  };
  const { model } = groundOf(job, { ...setup, stock: asked });
  const size = (axis: StockAxis, stock: StockSpec = asked) => stockSize(stock, axis, model.bounds, model.thickness);
  // Jaws do not find a round bar that lies.
  const isFit = ({ less, stock }: BarWay) =>
    less === 0 &&
    (stock.shape === 'box' ? size('Z', stock) - size('Z') <= FACED_OFF : (stock.lies ?? 'upright') === 'upright');
  const ways = barWays(asked, model, bars, job.material).filter(isFit);
  const dear = (w: BarWay) => (w.price ?? 0) + w.volume * priceOfCutting(job);
  if (ways.length === 0) {
    const sizes = STOCK_AXES.map((a) => formatLength(size(a), job.unit)).join(' × ');
    return {
      setup: { ...setup, stock: asked },
      said: `No bar on the shelf gives the blank: it is a block of ${sizes}.`,
    };
  }
  const way = ways.reduce((a, b) => (dear(b) < dear(a) ? b : a));
  return { setup: { ...setup, stock: way.stock }, said: `The blank is sawn from ${barText(way, ways[0], job.unit)}.` };
}

/** Share of its power a machine takes metal away with, over all of a job; a guess. */
const OF_POWER = 0.25;
/** How thick its chips are then, mm. */
const CHIP = 0.1;

/** What it costs to cut away metal, a mm³. */
function priceOfCutting({ machine, material }: Job): number {
  const power = machine.continuousPower || Math.max(...machine.spindle.map((p) => p.kW));
  const perMinute = (power * OF_POWER * machine.rigidity * 6e7) / specificForce(material.kc11, material.mc, CHIP);
  return machine.hourlyRate / 60 / perMinute;
}

/** A bar with what it costs, and why it is not the one whose metal is cheapest. */
function barText(way: BarWay, cheapest: BarWay, unit: LengthUnit): string {
  const cost = way.price === undefined ? 'its price is not known' : `${way.price.toFixed(2)} of metal`;
  if (way === cheapest || way.price === undefined || cheapest.price === undefined) return `${way.bar.name}: ${cost}`;
  const less = (way.price - cheapest.price).toFixed(2);
  const more = formatVolume(cheapest.volume - way.volume, unit);
  return `${way.bar.name}: ${cost}; ${cheapest.bar.name} would be ${less} less, but with ${more} more to cut away`;
}

/** The job with a setup for each side of an order, the first from a blank, the others from what the one before leaves; nothing holds them yet. */
export function inOrder(job: Job, [first, ...others]: Face[], bars: Bar[]): { job: Job; said: string } {
  const empty: Setup = {
    ...emptySetup(),
    name: nameOf(first),
    ...(first !== 'top' && { up: FACE_UPS[first] }),
  };
  const { setup, said } = withStock({ ...job, setups: [empty] }, empty, bars);
  // A setup for what leans would begin from a blank of its own.
  const level: Part = { ...job.part, features: job.part.features.filter((f) => !f.lean) };
  const all = others.reduce<Job>(
    (made, face, i) => {
      const added = addSetup(made);
      const last = added.setups[added.setups.length - 1];
      const workOffset = `G5${Math.min(9, 5 + i)}`;
      return withSetup(added, { ...last, up: FACE_UPS[face], name: nameOf(face), holding: [], workOffset });
    },
    { ...job, part: level, setups: [setup] },
  );
  return { job: { ...all, part: job.part }, said };
}

/** The job with one of its setups held: a sawn blank in a vise or a chuck, what was cut in a vise the way that finds metal, else in soft jaws. */
export function held(job: Job, setup: Setup): Job {
  if (setup.stock.shape !== 'as left') {
    const isUprightBar = setup.stock.shape !== 'box' && (setup.stock.lies ?? 'upright') === 'upright';
    return best(job, setup, isUprightBar ? [['chuck', { grip: HELD_BY - FREE }]] : BOTH_WAYS);
  }
  const { x, y } = contactOn(job.part, faceOf(setup.up ?? 'top'));
  const finds = BOTH_WAYS.filter((_, i) => (i === 0 ? y : x) >= LEAST_CONTACT);
  return onFixedJaw(best(job, setup, finds.length > 0 ? finds : [['soft jaws', {}]]), setup.id);
}

/** A kind of holding with values that are asked of it. */
type Held = [kind: string, asked: Record<string, unknown>];

const BOTH_WAYS: Held[] = [
  ['vise', { fixedJaw: 'back' }],
  ['vise', { fixedJaw: 'right' }],
];

const WEIGHT: Record<Finding['level'], number> = { stop: 10, care: 1, note: 0 };

/** The setup held in that of some ways least speaks against. */
function best(job: Job, setup: Setup, ways: Held[]): Job {
  const tries = ways.map(([kind, asked]) => {
    const next = addHolding(job, setup, kind, asked);
    const held = next.setups.find((s) => s.id === setup.id)!;
    const found = holdFindings(next, groundOf(next, held, partModel));
    return { next, against: found.reduce((sum, f) => sum + WEIGHT[f.level], 0) };
  });
  return tries.reduce((a, b) => (b.against < a.against ? b : a)).next;
}

/** A zero that stays where it is when the work is turned: the corner of the fixed jaw. */
function onFixedJaw(job: Job, id: string): Job {
  const setup = job.setups.find((s) => s.id === id)!;
  const [held] = setup.holding ?? [];
  if (!held) return job;
  const point = held.params.fixedJaw === 'right' ? 'back right' : 'back left';
  return withSetup(job, { ...setup, zero: { on: 'holding', of: held.id, point, height: 'top' } });
}
