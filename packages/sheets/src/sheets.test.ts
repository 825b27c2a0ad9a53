import 'reflect-metadata';
import { Bench, Job, acceptedKey, proven, released, toAccept } from '@tidypath/core';
import { tightPocket } from '@tidypath/core/testing/jobs';
import { pdfText as textOf } from '../testing/pdf-text';
import { Sheet } from './content';
import { htmlOf } from './html';
import { AREA, pagesOf } from './pages';
import { pdfOf } from './pens/pdf';
import { svgOf } from './pens/svg';
import { codeOf } from './pictures/code';
import { heldPicture } from './pictures/held';
import { Mark, Scene } from './scene';
import { ToPrint, firstPieceSheet, setupSheet } from './setup-sheet';

const job: Job = {
  ...tightPocket(),
  note: 'Handle with gloves',
  part: {
    ...tightPocket().part,
    features: tightPocket().part.features.map((f) =>
      f.meaning === 'pocket' ? { ...f, name: 'Well', limits: [{ size: 'width' as const, upper: 0.02, lower: 0 }] } : f,
    ),
  },
};
const [setup] = job.setups;

function releaseOf(): ToPrint {
  const work = proven(new Bench(), job, setup);
  for (;;) {
    const { done, value } = work.next();
    if (!done) continue;
    const { body } = released(job, setup, value!, toAccept(value!.checks).map(acceptedKey));
    return { job, setup, proof: body.proof, release: { ...body, number: 3, at: '2026-03-01T08:00:00Z', who: 'Ada' } };
  }
}
const of = releaseOf();
const MADE = new Date(0);

const wordsOf = (pages: string[]) => pages.join(' ').replace(/\s+/g, ' ');

describe('a setup sheet', () => {
  test('says what it is of, how it is held, its tools, steps, cautions, checks, sizes and notes, in that order', async () => {
    const pages = await textOf(pdfOf(setupSheet(of), 'A4', MADE));
    const said = wordsOf(pages);
    const order = [
      'How it is held',
      'Tools',
      'Steps',
      'Cautions',
      'Before and during',
      'Sizes to measure',
      'Notes',
      'Approved',
    ];
    expect(order.map((o) => said.indexOf(o))).toEqual(order.map((o) => said.indexOf(o)).sort((a, b) => a - b));
    for (const part of [job.name, job.machine.name, 'T4', 'Handle with gloves', 'Well, width', '50 +0.02/0'])
      expect(said).toContain(part);
    expect(pages.map((p) => /page (\d+) of (\d+)/.exec(p)?.slice(1))).toEqual(
      pages.map((_, i) => [String(i + 1), String(pages.length)]),
    );
    expect(said).toContain(of.release!.root.slice(0, 8).toUpperCase());
  });

  test('has the same pages on both papers, and is the same file twice', async () => {
    const [a4, letter] = await Promise.all(
      (['A4', 'Letter'] as const).map((p) => textOf(pdfOf(setupSheet(of), p, MADE))),
    );
    expect(letter).toEqual(a4);
    expect(Buffer.from(pdfOf(setupSheet(of), 'A4', MADE)).equals(Buffer.from(pdfOf(setupSheet(of), 'A4', MADE)))).toBe(
      true,
    );
  });

  test('says that it is no release where it is none, and has nothing to tick', () => {
    const page = htmlOf(setupSheet({ ...of, release: undefined }));
    expect(page).toContain('not released: for looking at only');
    expect(page).not.toContain('Before and during');
  });

  test('has a code where phones can reach it, and says why not where they cannot', () => {
    const address = 'http://192.168.1.20:4380';
    expect(setupSheet({ ...of, address }).code?.text).toBe(
      `${address}/r/${of.release!.root.slice(0, 8).toUpperCase()}`,
    );
    const without = setupSheet(of);
    expect(without.code).toBeUndefined();
    expect(htmlOf(without)).toContain('No code to scan');
  });

  test('writes nothing of a name as markup', () => {
    const page = htmlOf(setupSheet({ ...of, job: { ...job, name: '<b>"Plate" & more</b>' } }));
    expect(page).not.toContain('<b>');
    expect(page).toContain('&lt;b&gt;&quot;Plate&quot; &amp; more&lt;/b&gt;');
  });
});

describe('what does not fit', () => {
  const many: Job = {
    ...job,
    tools: Array.from({ length: 80 }, (_, i) => ({
      ...job.tools[0],
      id: `t${i}`,
      number: i + 1,
      name: `Tool ${i + 1}`,
    })),
  };
  const called = many.tools.map(({ number }) => ({ ...of.proof.called[0], number }));

  test('eighty tools break between rows, the head of the table on each page', async () => {
    const pages = await textOf(pdfOf(setupSheet({ ...of, job: many, proof: { ...of.proof, called } }), 'A4', MADE));
    const said = wordsOf(pages);
    for (const t of many.tools) expect(said).toContain(`Tool ${t.number}`);
    const heads = pages.filter((p) => p.includes('Holder and place')).length;
    expect(heads).toBeGreaterThan(5);
    expect(pages.filter((p) => /Tool 8 /.test(p))).toHaveLength(1);
  });

  test('a name without spaces is broken, and nothing leaves the page', () => {
    const name = 'W'.repeat(120);
    const letters = { width: (t: string, size: number) => [...t].length * size * 0.6 };
    const pages = pagesOf(setupSheet({ ...of, job: { ...job, name } }), 'A4', letters);
    const right = (m: Mark) => (m.kind === 'text' && m.anchor !== 'end' ? m.at.x + letters.width(m.text, m.size) : 0);
    const corner = (210 - AREA.width) / 2;
    expect(Math.max(...pages.flatMap((p) => p.marks.map(right)))).toBeLessThan(corner + AREA.width + 1);
  });

  test('Latin, Greek and Cyrillic are printed; other signs are boxes, and counted', async () => {
    const named = (name: string) =>
      textOf(pdfOf(setupSheet({ ...of, job: { ...job, name } }), 'A4', MADE)).then(wordsOf);
    const known = await named('Płyta Ωμέγα Пластина');
    expect(known).toContain('Płyta Ωμέγα Пластина');
    expect(known).not.toContain('script');
    expect(await named('板 plate')).toMatch(/\d signs are of a script this font has not/);
  });
});

test('the first piece is judged size by size', () => {
  const page = (sizes: [string, number][]) =>
    htmlOf(
      firstPieceSheet(
        of,
        sizes.map(([size, measured], i) => ({
          id: `${i}`,
          size,
          measured,
          part: 1,
          who: 'Ada',
          at: '2026-03-01T09:00:00Z',
        })),
      ),
    );
  const { id } = job.part.features.find((f) => f.name === 'Well')!;
  expect(page([])).toContain('1 of 1 sizes are not measured yet');
  expect(page([[`${id} width`, 50.01]])).toMatch(/Every size is within its limits.*within, at 50 % of its band/s);
  expect(
    page([
      [`${id} width`, 50.01],
      [`${id} width`, 49.988],
    ]),
  ).toMatch(/1 of 1 sizes are out.*too small by 0.012 mm/s);
});

describe('pictures', () => {
  const drawn = (scene: Scene) => scene.marks.filter((m) => m.kind === 'text').map((m) => m.kind === 'text' && m.text);

  test('the work is drawn with its zero, and with what is measured', () => {
    const said = drawn(heldPicture(job, setup));
    expect(said.filter((t) => t === 'X')).toHaveLength(2);
    expect(said).toEqual(expect.arrayContaining([expect.stringMatching(/^seen from/)]));
  });

  test('a code is square, quiet around it, and drawn without hairlines', () => {
    const { marks, width } = codeOf('http://192.168.1.20:4380/r/0A1B2C3D');
    const modules = marks.slice(1).filter((m) => m.kind === 'rectangle');
    const xs = modules.map((m) => m.at.x);
    const side = modules[0].width - 0.01;
    expect(Math.min(...xs)).toBeCloseTo(4 * side, 9);
    expect(Math.max(...xs) + side).toBeLessThanOrEqual(width - 4 * side + 1e-9);
  });

  test('every mark is drawn by the pen of the page', () => {
    const sheet: Sheet = { title: 'T', subtitle: 'S', facts: [], blocks: [] };
    expect(htmlOf(sheet)).toContain('<h1>T</h1>');
    const svg = svgOf(heldPicture(job, setup), 'Held');
    expect(svg.match(/<(path|rect|circle|line|text)/g)!.length).toBe(heldPicture(job, setup).marks.length);
    expect(svg).not.toContain('NaN');
  });
});
