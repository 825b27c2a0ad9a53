import {
  Finding,
  Job,
  Operation,
  isByHand,
  MEASURES,
  Samples,
  Setup,
  formatNumber,
  formatTime,
  formatVolume,
  batchText,
  costLinesText,
  costText,
  missingText,
  priceBreaks,
  runFigures,
  gripWords,
  kitOf,
  kitText,
  pullLines,
  groundOf,
  holdingText,
  lengthNumber,
  partModel,
  placeOfZero,
  ProofView,
  wholeTime,
  zeroPlaces,
} from '@tidypath/core';
import { MEASURE_INFO, gridText, offText } from './measures';

/** What a report is made from. */
export interface Reported {
  job: Job;
  setup: Setup;
  proof: ProofView;
  /** The program's name. */
  program: string;
  /** Work zero, part coordinates. */
  zero: { x: number; y: number };
  /** The picture as a PNG, where it could be drawn. */
  picture?: Uint8Array;
  /** When it was made. */
  date: Date;
}

const escape = (text: string) =>
  text.replace(/[&<>"']/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[c]!);

const row = (cells: string[], tag = 'td') => `<tr>${cells.map((c) => `<${tag}>${escape(c)}</${tag}>`).join('')}</tr>`;

function table(head: string[], rows: string[][]): string {
  return rows.length === 0 ? '' : `<table>${row(head, 'th')}${rows.map((r) => row(r)).join('')}</table>`;
}

/** Base 64 of a file, in pieces that fit a call. */
function base64(file: Uint8Array): string {
  let text = '';
  for (let i = 0; i < file.length; i += 8192) text += String.fromCharCode(...file.subarray(i, i + 8192));
  return btoa(text);
}

const CHART = { width: 720, height: 90 };

/** Removal rate over time as a drawing. */
function chart({ count, time, rate }: Samples, total: number): string {
  const bars = new Float32Array(CHART.width);
  for (let i = 0; i < count; i++) {
    const x = Math.min(CHART.width - 1, Math.floor((time[i] / Math.max(total, 1e-6)) * CHART.width));
    if (rate[i] > bars[x]) bars[x] = rate[i];
  }
  const highest = Math.max(1e-6, ...bars);
  const y = (v: number) => (CHART.height * (1 - v / highest)).toFixed(1);
  const line = Array.from(bars, (v, x) => `H${x}V${y(v)}`).join('');
  return `<svg viewBox="0 0 ${CHART.width} ${CHART.height}" role="img" aria-label="Metal removed over time"><path d="M0 ${CHART.height}${line}V${CHART.height}Z"/></svg>`;
}

const findingRow = (f: Finding) => [f.level, f.place.line ? String(f.place.line) : '', f.message, f.remedy];

const STYLE = `body{font:15px/1.45 system-ui,sans-serif;max-width:46rem;margin:2rem auto;padding:0 1rem;color:#1e2430}
table{border-collapse:collapse;width:100%;margin:.6rem 0}th,td{border:1px solid #cfc7b6;padding:.3rem .5rem;text-align:left}
h1,h2{line-height:1.2}img{max-width:100%}svg{width:100%;background:#ebe5d8}path{fill:#27406b}`;

/** What a step is called, with what is told at the machine where it is done by hand. */
const told = (o: Operation) => (isByHand(o) && o.params.note ? `${o.name}: ${String(o.params.note)}` : o.name);

/** How the work is held and where its zero is, for whoever sets it up. */
function heldSection(job: Job, setup: Setup, proof: ProofView): string {
  const ground = groundOf(job, setup, partModel);
  const { features } = ground.work;
  const { zero, workOffset } = setup;
  const place = placeOfZero(zero, zeroPlaces(ground, features));
  const [worst] = [...proof.grip].sort((a, b) => a.margin - b.margin);
  const verdict = worst && gripWords(worst, setup.operations.find((o) => o.id === worst.operation)?.name);
  const things = (setup.holding ?? []).map((h) => [h.name, holdingText(h, features, job.unit)]);
  return `<h2>How it is held</h2>
<p>${escape(`Zero ${workOffset} on ${place?.name ?? 'something that is gone'}, at its ${zero.height}.`)}</p>
${table(['', 'Set'], things)}${verdict ? `<p>${escape(verdict)} Forces and friction are estimates.</p>` : ''}`;
}

/** What is pulled, preset and loaded before it runs, and which edges the batch takes. */
function kitSection(job: Job, setup: Setup, proof: ProofView): string {
  const called = proof.called.map((c) => c.number);
  const kit = kitOf(job, setup, called, proof.wear);
  const unknown = called.filter((n) => !kit.some((k) => k.tool.number === n)).map((n) => [`T${n}`, 'not known', '']);
  const pulled = pullLines(job, setup).map((line) => `<p>${escape(line)}</p>`);
  return `<h2>What to make ready</h2>
<p>${escape(batchText(job, setup, wholeTime(proof.clock)))}</p>
${pulled.join('\n')}
${table(['', 'Tool', ''], [...kit.map((k) => [`T${k.tool.number}`, k.tool.name, kitText(k, job.unit)]), ...unknown])}`;
}

/** What a part costs in this setup, in batches of several sizes. */
function costSection(job: Job, setup: Setup, proof: ProofView): string {
  const costs = priceBreaks(job, new Map([[setup.id, runFigures(proof)]]), [setup]);
  const alone = job.setups.length > 1 ? ' in this setup' : '';
  return `<h2>What a part costs${alone}</h2>
${table(
  ['Parts made', 'Each', 'Of that'],
  costs.map((c) => [String(c.batch), costText(c), costLinesText(c)]),
)}
<p>${escape(missingText(costs[0]))} Edges and energy are estimates.</p>`;
}

/** The proof of a program as a page that stands by itself: to print, to keep, to have approved. */
export function reportPage({ job, setup, proof, program, zero, picture, date }: Reported): string {
  const stops = proof.findings.filter((f) => f.level === 'stop').length;
  const names = new Map(setup.operations.map((o) => [o.id, told(o)]));
  const { clock } = proof;
  const { unit } = job;
  const title = escape(`${job.name}, ${setup.name}: proof of ${program}`);
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${title}</title>
<style>${STYLE}</style></head><body>
<h1>${title}</h1>
<p>${escape(date.toISOString().slice(0, 16).replace('T', ' '))} UTC · ${escape(job.machine.name)} · ${escape(job.material.name)}</p>
<h2>${stops ? `${stops} ${stops === 1 ? 'thing stops' : 'things stop'} this program` : 'Nothing stops this program'}</h2>
${table(['', 'Line', 'Finding', 'What to do'], proof.findings.map(findingRow))}
${picture ? `<img alt="The piece on the machine" src="data:image/png;base64,${base64(picture)}">` : ''}
${heldSection(job, setup, proof)}
<h2>Time ${escape(formatTime(wholeTime(clock)))}</h2>
<p>${escape(
    [
      ['cutting', clock.cut],
      ['rapids', clock.rapid],
      ['tool changes', clock.toolChange],
      ['dwells', clock.dwell],
      ...(clock.hand ? [['by hand', clock.hand]] : []),
    ]
      .map(([name, minutes]) => `${name} ${formatTime(minutes as number)}`)
      .join(', '),
  )}</p>
${table(
  ['Step', 'Time', 'Metal', 'Spindle'],
  proof.steps.map((s) => [
    names.get(s.operationId) ?? '',
    formatTime(s.minutes),
    formatVolume(s.removed * 1000, unit),
    `${formatNumber(s.load * 100, 0)} %`,
  ]),
)}
<h2>Load</h2>
${chart(proof.samples, clock.total * 60)}
${table(
  ['Measure', 'Most', 'Cause', 'Line'],
  MEASURES.flatMap((m) =>
    proof.peaks[m]
      .slice(0, 1)
      .map((p) => [MEASURE_INFO[m].label, MEASURE_INFO[m].text(p.value, unit), p.cause, String(proof.lines[p.motion])]),
  ),
)}
<h2>Against the part</h2>
${
  table(
    ['', 'Metal', 'Place'],
    proof.places.map((p) => [
      offText(p.by, p.kind, unit),
      formatVolume(p.volume, unit, true),
      `X ${lengthNumber(p.x - zero.x, unit)} Y ${lengthNumber(p.y - zero.y, unit)}`,
    ]),
  ) || '<p>Everything the part asks for is cut, and nothing is cut into it.</p>'
}
<p>${formatVolume(proof.removed * 1000, unit)} removed; heights on a grid of ${gridText(proof.grid, unit)}.</p>
${kitSection(job, setup, proof)}
${costSection(job, setup, proof)}
<p>First run: check tool lengths and work offset, dry run above the part, single block, reduced rapids. The figures are
estimates; the machine maker’s limits and your local safety rules decide.</p>
</body></html>
`;
}
