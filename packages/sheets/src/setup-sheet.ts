/** The setup sheet: everything somebody needs who sets the machine up for one setup of a job, on paper. */
import {
  blanksOf,
  blanksText,
  CheckItem,
  Job,
  KeptSize,
  KeptTick,
  ProofSummary,
  ReleaseBody,
  Setup,
  Tool,
  checklistOf,
  compensationsOf,
  controllerOf,
  formatFeed,
  formatLength,
  formatNumber,
  formatTime,
  gripWords,
  groundOf,
  handOf,
  holdingText,
  kitOf,
  kitText,
  partModel,
  placeOfZero,
  rangeText,
  shortRoot,
  sizeText,
  sizeVerdict,
  sizesToMeasure,
  wholeTime,
  zeroByHand,
  zeroPlaces,
} from '@tidypath/core';
import { Block, Cell, Sheet, heading, table, text } from './content';
import { codeOf } from './pictures/code';
import { heldPicture } from './pictures/held';
import { sizeOfTool, toolPicture } from './pictures/tool';

/** What a sheet is made from: a setup with its proof, and the release where it is one. */
export interface ToPrint {
  job: Job;
  setup: Setup;
  proof: ProofSummary;
  release?: Pick<ReleaseBody, 'root' | 'accepted' | 'plunges'> & {
    number: number;
    /** ISO 8601. */
    at: string;
    who: string;
    /** Who approved it, in words; nothing where nobody did. */
    approved?: string;
    ticks?: KeptTick[];
  };
  /** Address under which phones reach the release: `ADDRESS/r/ROOT8`; without one there is no code, and why is said. */
  address?: string;
}

/** Shown where it must not be taken for a release. */
const DRAFT = 'not released: for looking at only';

const short = (mm: number, job: Job) => formatLength(Math.round(mm * 1000) / 1000, job.unit);

function facts({ job, setup, proof, release }: ToPrint): Sheet['facts'] {
  const index = job.setups.findIndex((s) => s.id === setup.id) + 1;
  return [
    ['Setup', `${setup.name}, ${index} of ${job.setups.length}`],
    ['Machine', `${job.machine.name}, ${controllerOf(job)?.name ?? ''}`.replace(/, $/, '')],
    ['Material', job.material.name],
    ['Work offset', setup.workOffset],
    ['Takes', formatTime(wholeTime(proof.clock))],
    ...(job.customerNumber ? [['Number', job.customerNumber] as [string, string]] : []),
    release
      ? ['Release', `${release.number}, ${shortRoot(release.root)}, ${release.at.slice(0, 10)} ${release.who}`.trim()]
      : ['Release', DRAFT],
  ];
}

function holdBlocks({ job, setup, proof }: ToPrint): Block[] {
  const ground = groundOf(job, setup, partModel);
  const { features } = ground.work;
  const place = placeOfZero(setup.zero, zeroPlaces(ground, features));
  const [worst] = [...proof.grip].sort((a, b) => a.margin - b.margin);
  const verdict = worst && gripWords(worst, setup.operations.find((o) => o.id === worst.operation)?.name);
  const blanks = blanksOf(job, setup);
  return [
    heading('How it is held'),
    { kind: 'picture', scene: heldPicture(job, setup), told: 'The work as it is held, from three sides' },
    text(
      `Zero ${setup.workOffset} on ${place?.name ?? 'something that is gone'}, at its ${setup.zero.height}: the circle in the pictures.`,
    ),
    ...zeroByHand(job, setup).map((line) => text(line)),
    ...table(
      ['What holds it', 'Set'],
      [0.35, 0.65],
      (setup.holding ?? []).map((h) => [h.name, holdingText(h, features, job.unit)]),
    ),
    ...(verdict ? [text(`${verdict} Estimates.`, true)] : []),
    ...(blanks ? [text(blanksText(blanks, job.unit))] : []),
  ];
}

/** Room of a tool’s drawing, mm. */
const [TOOL_WIDE, TOOL_HIGH] = [15, 20];
/** No tool is drawn larger than it is. */
const LIFE_SIZE = 1;

/** The scale all tools of a sheet are drawn to. */
const scaleOf = (tools: Tool[]) =>
  Math.min(
    LIFE_SIZE,
    ...tools.map(sizeOfTool).map(({ wide, high }) => Math.min((TOOL_WIDE - 1) / wide, (TOOL_HIGH - 1) / high)),
  );

function toolBlocks({ job, setup, proof }: ToPrint): Block[] {
  const numbers = proof.called.map((c) => c.number);
  const kit = kitOf(job, setup, numbers, proof.wear);
  const scale = scaleOf(kit.map((k) => k.tool));
  const { lengthOffsets } = controllerOf(job) ?? {};
  const registers = ({ id, number }: Tool) =>
    [lengthOffsets && `H${number}`, compensationsOf(setup, id).size > 0 && `D${number}`].filter(Boolean).join('  ');
  const rows = kit.map(({ tool, ...k }): Cell[] => [
    `T${tool.number}`,
    toolPicture(tool, scale, TOOL_WIDE, TOOL_HIGH),
    `${tool.name}\n⌀ ${short(tool.diameter, job)}, ${tool.flutes} flutes`,
    kitText({ tool, ...k }, job.unit),
    registers(tool),
    'L ________\nmeasured',
  ]);
  const missing = [...new Set(numbers)].filter((n) => !kit.some((k) => k.tool.number === n));
  return [
    heading('Tools'),
    ...table(['T', '', 'Tool', 'Holder and place', 'Registers', 'Length'], [0.06, 0.1, 0.24, 0.32, 0.11, 0.17], rows),
    ...missing.map((n) => text(`T${n} is called and not known.`)),
  ];
}

function stepBlocks({ job, setup, proof }: ToPrint): Block[] {
  const figures = new Map(proof.steps.map((s) => [s.operationId, s]));
  const rows = setup.operations
    .filter((o) => o.on)
    .map((o, i): Cell[] => {
      const hand = handOf(o);
      const name = [o.name, hand?.note || o.before?.note].filter(Boolean).join('\n');
      if (hand) return [String(i + 1), name, 'by hand', '', '', formatTime(hand.minutes), ''];
      const tool = job.tools.find((t) => t.id === o.toolId);
      const step = figures.get(o.id);
      return [
        String(i + 1),
        name,
        tool ? `T${tool.number}` : '',
        formatNumber(o.speeds.rpm, 0),
        formatFeed(o.speeds.feed, job.unit),
        step ? formatTime(step.minutes) : '',
        step ? `${formatNumber(step.load * 100, 0)} %` : '',
      ];
    });
  return [
    heading('Steps'),
    ...table(['', 'Step', 'Tool', 'S', 'F', 'Time', 'Heaviest'], [0.05, 0.41, 0.09, 0.1, 0.15, 0.1, 0.1], rows),
  ];
}

const CAUTION =
  'First run: check lengths and work offset, dry run above the part, single block, reduced rapids, a finger on feed hold. The figures are estimates; the machine maker’s limits and your local safety rules decide.';

function cautionBlocks({ job, proof, release }: ToPrint): Block[] {
  const found = release?.accepted ?? proof.findings.filter((f) => f.level !== 'note');
  return [
    heading('Cautions'),
    ...(job.material.caution ? [text(job.material.caution)] : []),
    ...found.map((f) => text(`${f.message}. ${f.remedy}.`)),
    text(CAUTION, true),
  ];
}

/** When and by whom an item was ticked. */
const doneBy = (ticks: KeptTick[] | undefined, { id }: CheckItem): string | undefined => {
  const last = ticks?.filter((t) => t.item === id).pop();
  return last?.isSo ? `${last.who} ${last.at.slice(5, 16).replace('T', ' ')}`.trim() : undefined;
};

function checkBlocks({ job, setup, proof, release }: ToPrint): Block[] {
  if (!release) return [];
  const called = proof.called.map((c) => c.number);
  const items = checklistOf({ job, setup, called, ...release });
  return [
    heading('Before and during the first part'),
    { kind: 'checks', items: items.map((i) => ({ text: i.text, done: doneBy(release.ticks, i) })) },
  ];
}

const nameOfSize = (size: string) => (size === 'across' ? 'across flats' : size);

function sizeBlocks({ job, setup }: ToPrint): Block[] {
  const sizes = sizesToMeasure(job, setup);
  const rows = sizes.map(({ feature, size, mm, limits }) => [
    `${feature}, ${nameOfSize(size)}`,
    sizeText({ mm, limits }, job.unit),
    rangeText({ mm, limits }, job.unit),
    '________',
  ]);
  return rows.length > 0
    ? [heading('Sizes to measure'), ...table(['Size', 'Drawn', 'From, to', 'Measured'], [0.4, 0.2, 0.24, 0.16], rows)]
    : [];
}

function notes({ job, setup }: ToPrint): Block[] {
  const words = [
    job.note,
    ...setup.operations.flatMap((o) => (o.on && o.before?.note ? `${o.name}: ${o.before.note}` : [])),
  ];
  const said = words.filter((w) => w.trim());
  return [heading('Notes'), ...said.map((w) => text(w)), { kind: 'blanks', names: [''], lines: 3 }];
}

/** The whole sheet, in the order it is used. */
export function setupSheet(of: ToPrint): Sheet {
  const { job, setup, release, address } = of;
  const link = release && address ? `${address}/r/${shortRoot(release.root)}` : undefined;
  return {
    title: job.name,
    subtitle: `${job.name} · ${setup.name}${release ? ` · ${shortRoot(release.root)}` : ` · ${DRAFT}`}`,
    facts: facts(of),
    code: link ? { scene: codeOf(link), text: link } : undefined,
    blocks: [
      ...(release && !link
        ? [
            text(
              'No code to scan: Shop has no address under which phones on the network of the shop reach this release.',
              true,
            ),
          ]
        : []),
      ...holdBlocks(of),
      ...toolBlocks(of),
      ...stepBlocks(of),
      ...cautionBlocks(of),
      ...checkBlocks(of),
      ...sizeBlocks(of),
      ...notes(of),
      heading('Approved'),
      release?.approved ? text(release.approved) : { kind: 'blanks', names: ['Name', 'Date', 'Signed'], lines: 1 },
    ],
  };
}

/** What was measured on the first piece, against the limits it has. */
export function firstPieceSheet(of: ToPrint, sizes: KeptSize[]): Sheet {
  const { job, setup, release } = of;
  const last = (id: string) => sizes.filter((s) => s.size === id).pop();
  const all = sizesToMeasure(job, setup);
  const judged = all.map((size) => ({ size, found: last(size.id) }));
  const verdicts = judged.map(({ size, found }) => found && sizeVerdict(size, found.measured, job.unit));
  const out = verdicts.filter((v) => v && !v.ok).length;
  const open = verdicts.filter((v) => !v).length;
  const rows = judged.map(({ size: { feature, size, mm, limits }, found }, i) => [
    `${feature}, ${nameOfSize(size)}`,
    sizeText({ mm, limits }, job.unit),
    found ? formatLength(found.measured, job.unit) : '________',
    verdicts[i]?.words ?? '',
    found ? `${found.who} ${found.at.slice(0, 10)}`.trim() : '',
  ]);
  const verdict =
    all.length === 0
      ? 'No size of this setup has limits: there is nothing to measure against.'
      : out > 0
        ? `${out} of ${all.length} sizes are out of their limits.`
        : open > 0
          ? `${open} of ${all.length} sizes are not measured yet.`
          : 'Every size is within its limits.';
  return {
    title: `First piece: ${job.name}`,
    subtitle: `First piece · ${job.name} · ${setup.name}${release ? ` · ${shortRoot(release.root)}` : ''}`,
    facts: facts(of),
    blocks: [
      heading(verdict),
      ...table(['Size', 'Drawn', 'Measured', '', 'By'], [0.3, 0.18, 0.16, 0.2, 0.16], rows),
      { kind: 'blanks', names: ['Checked by', 'Date'], lines: 1 },
    ],
  };
}
