/** What a batch of parts takes: blanks and bars, runs and minutes, and what is made ready for them. */
import { barPlaceOf, priceOf, sawnFrom, Sawn } from '../document/bars';
import { placesOfCopies } from '../document/copies';
import { placesOfStations } from '../document/stations';
import { Job, Setup } from '../document/job';
import { stockSize, STOCK_AXES } from '../document/stock';
import { Wear } from '../judge/wear';
import { partModel } from '../part/plate/model';
import { Finding, finding } from '../quantity/finding';
import { Bar } from '../shop/bar';
import { Tool } from '../shop/tool';
import { beforeOf, groundOf } from './ground';

/** Parts that come out of one run of a setup. */
export const partsARun = (setup: Setup): number => placesOfCopies(setup).length * placesOfStations(setup).length;

/** How often a setup runs for the whole batch. */
export const runsForBatch = ({ batch = 1 }: Job, setup: Setup): number => Math.ceil(batch / partsARun(setup));

/** The blanks of a batch that one setup starts from. */
export interface Blanks extends Sawn {
  bar: Bar;
  /** How many blanks, and how many bars they take. */
  blanks: number;
  bars: number;
  /** Of one blank; left out where it is not known. */
  kg?: number;
  price?: number;
}

/** What comes out of a setup’s blank, as it lies before it is made to lean. */
const wantedOf = (job: Job, setup: Setup) => groundOf(job, { ...setup, lean: undefined }, partModel).model;

/** What a batch needs of the bar a setup's blanks are sawn off; undefined where it has none, or is not what that gives. */
export function blanksOf(job: Job, setup: Setup): Blanks | undefined {
  const { bar } = setup.stock;
  const sawn = bar && !beforeOf(job, setup) ? sawnFrom(setup.stock, wantedOf(job, setup)) : undefined;
  if (!bar || !sawn) return undefined;
  const blanks = Math.ceil((job.batch ?? 1) / placesOfCopies(setup).length);
  const bars = sawn.perBar > 0 ? Math.ceil(blanks / sawn.perBar) : 0;
  return { bar, ...sawn, blanks, bars, ...priceOf(sawn, bar, job.material) };
}

/** How many columns or rows of parts a bar has room for along an axis, where a setup has many. */
function mostAlong({ copies, stock }: Setup, bar: Bar, length: number): number | undefined {
  const along = copies && barPlaceOf(stock);
  if (!along) return undefined;
  const [count, pitch] = along === 'X' ? [copies.columns, copies.dx] : [copies.rows, copies.dy];
  return count > 1 ? Math.max(0, Math.floor((bar.length - (length - (count - 1) * pitch)) / pitch) + 1) : undefined;
}

/** What speaks against the bar a setup's blanks are sawn off, and against cutting the batch from it. */
export function blankFindings(job: Job, setup: Setup): Finding[] {
  const { bar } = setup.stock;
  if (!bar || beforeOf(job, setup)) return [];
  const place = { field: 'stock.bar' };
  const found: Finding[] = [];
  if (bar.materialId !== job.material.id)
    found.push(finding('bar-material', { bar: bar.name, material: job.material.name }, place));
  const needed = blanksOf(job, setup);
  const { bounds, thickness } = wantedOf(job, setup);
  if (!needed) {
    const [x, y, z] = STOCK_AXES.map((axis) => stockSize(setup.stock, axis, bounds, thickness));
    return [...found, finding('bar-differs', { bar: bar.name, x, y, z }, place)];
  }
  const { blanks, perBar, bars, lengths } = needed;
  if (perBar === 0) {
    const most = mostAlong(setup, bar, lengths[0]);
    found.push(
      finding('bar-too-short', { bar: bar.name, blank: Math.max(...lengths), length: bar.length, most }, place),
    );
  } else if (bar.pieces && bars > bar.pieces) {
    const fit = Math.min(job.batch ?? 1, bar.pieces * perBar * placesOfCopies(setup).length);
    found.push(
      finding('bars-too-few', { bar: bar.name, parts: job.batch ?? 1, blanks, bars, pieces: bar.pieces, fit }, place),
    );
  }
  return found;
}

/**
 * Minutes a setup takes for the whole batch: set up once, every run with what it takes to reload.
 * @param run minutes of one run of its program
 */
export function batchMinutes(job: Job, setup: Setup, run: number): number {
  const { setUpMinutes = 0, reloadMinutes = 0 } = setup;
  return setUpMinutes + runsForBatch(job, setup) * (run + reloadMinutes);
}

/** A tool to make ready. */
export interface KitTool {
  tool: Tool;
  /** The pocket its program calls. */
  pocket: number;
  /** Whether it stands there already, has to be put in, is changed in by hand, or has no such pocket. */
  stands: 'there' | 'to load' | 'by hand' | 'nowhere';
  /** The pocket it stands in now, where that is another. */
  now?: number;
  /** Which tool stands there now and has to come out; its name where it is one of the job's. */
  out?: string;
  /** Sets of edges to have for the batch; left out where its wear is not known. */
  edges?: number;
  /** Where their life is from, where that is not their card. */
  lifeFrom?: string;
}

/**
 * What to preset and load for a setup, against the carousel as it stands.
 * @param numbers of the tools its program calls, in its order
 * @param wear of one run
 */
export function kitOf(job: Job, setup: Setup, numbers: number[], wear: Wear[]): KitTool[] {
  const { machine, tools } = job;
  const wanted = [...new Set(numbers)].flatMap((n) => tools.find((t) => t.number === n) ?? []);
  const nameOf = (id: string) => tools.find((t) => t.id === id)?.name ?? id;
  return wanted.map((tool) => {
    const pocket = tool.number;
    const share = wear.find((w) => w.tool === tool.number)?.share;
    const edges = share === undefined ? undefined : Math.max(1, Math.ceil(share * runsForBatch(job, setup) - 1e-9));
    const lifeFrom = tool.lasts?.find((l) => l.materialId === job.material.id)?.note;
    const counted = { edges, ...(lifeFrom && { lifeFrom }) };
    if (machine.toolPockets === 1) return { tool, pocket, stands: 'by hand' as const, ...counted };
    if (pocket > machine.toolPockets) return { tool, pocket, stands: 'nowhere' as const, ...counted };
    const now = machine.carousel.find((p) => p.toolId === tool.id)?.pocket;
    const there = machine.carousel.find((p) => p.pocket === pocket);
    if (there?.toolId === tool.id) return { tool, pocket, stands: 'there' as const, ...counted };
    return { tool, pocket, stands: 'to load' as const, now, out: there && nameOf(there.toolId), ...counted };
  });
}
