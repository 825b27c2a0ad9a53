/** A batch in words, for pages, reports and the command line. */
import { BarWay } from '../document/bars';
import { Job, Setup } from '../document/job';
import { stockSize } from '../document/stock';
import { holdingText } from '../holding/words';
import { partModel } from '../part/plate/model';
import { LengthUnit, formatLength, formatNumber, formatTime } from '../quantity/units';
import { Bar } from '../shop/bar';
import { Material } from '../shop/material';
import { Blanks, KitTool, batchMinutes, blanksOf, runsForBatch } from './batch';
import { groundOf } from './ground';

const short = (mm: number, unit: LengthUnit) => formatLength(Math.round(mm * 100) / 100, unit);

const count = (n: number, one: string, many: string) => `${formatNumber(n, 0)} ${n === 1 ? one : many}`;

/** "0.85 kg, 5.52", or what is missing of it. */
function worth({ kg, price }: Pick<BarWay, 'kg' | 'price'>): string {
  if (kg === undefined) return 'weight and price not known: its material has no density';
  const weight = `${formatNumber(kg, kg < 1 ? 3 : 2)} kg`;
  return price === undefined ? `${weight}, its price is not known` : `${weight}, ${price.toFixed(2)}`;
}

/** A bar in a line: its section, length and price. */
export function barText(bar: Bar, material: Material | undefined, unit: LengthUnit): string {
  const { section, width, thickness, diameter, bore, length, pricePerKg, pieces } = bar;
  const across =
    section === 'round'
      ? `⌀ ${short(diameter, unit)}`
      : section === 'tube'
        ? `⌀ ${short(diameter, unit)}, bore ${short(bore, unit)}`
        : `${short(width, unit)} × ${short(thickness, unit)}`;
  return [
    material?.name,
    across,
    `${short(length, unit)} long`,
    pricePerKg ? `${formatNumber(pricePerKg, 2)} a kg` : 'no price',
    pieces ? `${pieces} at hand` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** A way to lay a bar, in a line: "along X, 100 mm high; sawn to 126 mm, 23 a bar; 0.85 kg, 5.52". */
export function wayText(way: BarWay, { model }: Pick<ReturnType<typeof groundOf>, 'model'>, unit: LengthUnit): string {
  const { bar, stock, lengths, perBar, less } = way;
  const lies = bar.section === 'plate' ? '' : `${stock.lies ?? 'upright'}, `;
  const high =
    bar.section === 'flat' || bar.section === 'plate'
      ? `${short(stockSize(stock, 'Z', model.bounds, model.thickness), unit)} high; `
      : '';
  const missing = less > 0 ? ` ${short(less, unit)} less round the part than asked.` : '';
  const sawn = `sawn to ${lengths.map((l) => short(l, unit)).join(' by ')}, ${perBar} a bar`;
  return `${lies}${high}${sawn}; ${worth(way)}.${missing}`.replace(/^./, (c) => c.toUpperCase());
}

/** What is pulled for a batch: "20 blanks of 126 mm from 1 bar, 0.85 kg, 5.52 each". */
export function blanksText({ bar, lengths, blanks, bars, ...each }: Blanks, unit: LengthUnit): string {
  const long = lengths.map((l) => short(l, unit)).join(' by ');
  const from = bars > 0 ? count(bars, 'piece', 'pieces') : 'no piece long enough';
  return `${count(blanks, 'blank', 'blanks')} of ${long} from ${from} of “${bar.name}”; ${worth(each)}${blanks > 1 && each.kg !== undefined ? ' each' : ''}`;
}

/**
 * How long a setup takes for the batch: "20 runs of 4:12 and 2 min to reload, 30 min to set up: 2:34:00 in all".
 * @param run minutes of one run; undefined where its program is not proved yet
 */
export function batchText(job: Job, setup: Setup, run: number | undefined): string {
  const { setUpMinutes = 0, reloadMinutes = 0 } = setup;
  const runs = count(runsForBatch(job, setup), 'run', 'runs');
  if (run === undefined) return `${runs}; how long they take is known once the program is proved.`;
  const reload = reloadMinutes > 0 ? ` and ${formatNumber(reloadMinutes, 1)} min to reload` : '';
  const first = setUpMinutes > 0 ? `, ${formatNumber(setUpMinutes, 1)} min to set up` : '';
  return `${runs} of ${formatTime(run)}${reload}${first}: ${formatTime(batchMinutes(job, setup, run))} in all.`;
}

/** A tool to make ready, in a line after its name. */
export function kitText({ tool, pocket, stands, now, out, edges, lifeFrom }: KitTool, unit: LengthUnit): string {
  const place =
    stands === 'by hand'
      ? 'changed in by hand'
      : stands === 'there'
        ? `stands in pocket ${pocket}`
        : stands === 'nowhere'
          ? `the machine has no pocket ${pocket}: give it a lower number`
          : `put into pocket ${pocket}${now ? `, out of ${now}` : ''}${out ? `; ${out} comes out` : ''}`;
  const worn =
    edges === undefined ? '' : `; ${edges === 1 ? 'one edge lasts' : `have ${formatNumber(edges, 0)} edges`}`;
  const from = worn && lifeFrom ? ` (their life ${lifeFrom})` : '';
  return `${tool.holder.name}, out ${short(tool.stickOut, unit)}; ${place}${worn}${from}`;
}

/** What is pulled from the store before a setup: its blanks, and what holds them. */
export function pullLines(job: Job, setup: Setup): string[] {
  const blanks = blanksOf(job, setup);
  const { features } = groundOf(job, setup, partModel).work;
  return [
    ...(blanks ? [blanksText(blanks, job.unit)] : []),
    ...(setup.holding ?? []).map((h) => `${h.name}: ${holdingText(h, features, job.unit)}`),
  ];
}
