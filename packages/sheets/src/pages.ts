/** Lays a sheet out on paper: breaks between rows only, the head of a table again on each page. */
import { Block, Cell, Sheet } from './content';
import { Mark, Scene, Spot, line, shifted, words } from './scene';

export const PAPERS = {
  A4: { width: 210, height: 297 },
  Letter: { width: 215.9, height: 279.4 },
} as const;
export type Paper = keyof typeof PAPERS;

/** What both papers have room for, mm. */
export const AREA = { width: 186, height: 259 };

/** How wide text is in the font it will have. */
export interface Letters {
  width(text: string, size: number, bold: boolean): number;
}

const SIZE = { title: 6, heading: 4.3, text: 3.3, small: 2.9 };
const LEADING = 1.32;
/** Of letters, the share of their size above the line they stand on. */
const ABOVE = 0.8;
const PAD = 1.1;
const HEAD = 7;
/** No heading is left alone at the foot of a page: so much follows it. */
const FOLLOWS = 16;
const BOX = 3.2;

/** A word longer than its line is broken where the line ends. */
function broken(word: string, fits: (text: string) => boolean): string[] {
  const pieces: string[] = [];
  let rest = [...word];
  while (rest.length > 0 && !fits(rest.join(''))) {
    let n = 1;
    while (n < rest.length && fits(rest.slice(0, n + 1).join(''))) n++;
    pieces.push(rest.slice(0, n).join(''));
    rest = rest.slice(n);
  }
  return [...pieces, rest.join('')].filter(Boolean);
}

/** Text in lines no wider than asked; a line that ends stays one. */
export function wrapped(said: string, width: number, size: number, letters: Letters, bold = false): string[] {
  const fits = (t: string) => letters.width(t, size, bold) <= width;
  return said.split('\n').flatMap((paragraph) => {
    const lines: string[] = [];
    let now = '';
    for (const word of paragraph.split(' ').flatMap((w) => broken(w, fits))) {
      const longer = now ? `${now} ${word}` : word;
      if (now && !fits(longer)) {
        lines.push(now);
        now = word;
      } else now = longer;
    }
    return [...lines, now];
  });
}

/** Something that is not divided, as high as it is. */
interface Piece {
  height: number;
  marks: Mark[];
}

const height = (lines: number, size: number) => lines * size * LEADING;

function lines(all: string[], at: Spot, size: number, bold = false): Mark[] {
  return all.map((l, i) => words({ x: at.x, y: at.y + size * (ABOVE + i * LEADING) }, l, size, { bold }));
}

class Layout {
  private readonly done: Mark[][] = [];
  private marks: Mark[] = [];
  private y = 0;

  constructor(
    private readonly sheet: Sheet,
    private readonly letters: Letters,
  ) {
    this.begin();
    this.first();
  }

  private begin(): void {
    this.marks = [];
    this.y = HEAD;
  }

  private turn(): void {
    this.done.push(this.marks);
    this.begin();
  }

  /** Puts something on the page, on the next where this one has no room for it and what has to follow. */
  private put({ height: high, marks }: Piece, follows = 0): boolean {
    const isNew = this.y + high + follows > AREA.height && this.y > HEAD;
    if (isNew) this.turn();
    this.marks.push(...shifted(marks, { x: 0, y: this.y }));
    this.y += high;
    return isNew;
  }

  private wrap = (said: string, width: number, size: number, bold = false) =>
    wrapped(said, width, size, this.letters, bold);

  private said(said: string, size: number, bold = false, width = AREA.width): Piece {
    const all = this.wrap(said, width, size, bold);
    return { height: height(all.length, size) + 0.8, marks: lines(all, { x: 0, y: 0 }, size, bold) };
  }

  /** Title, facts in two columns and the code beside them. */
  private first(): void {
    const { title, facts, code } = this.sheet;
    const side = code ? code.scene.width + 4 : 0;
    const wide = AREA.width - side;
    const top = this.y;
    this.put(this.said(title, SIZE.title, true, wide));
    const [name, column] = [22, wide / 2];
    for (let i = 0; i < facts.length; i += 2) {
      const pair = facts.slice(i, i + 2).map(([n, value], k) => {
        const all = this.wrap(value, column - name - 2, SIZE.text);
        return {
          high: height(all.length, SIZE.text),
          marks: [
            ...lines([n], { x: k * column, y: 0 }, SIZE.small),
            ...lines(all, { x: k * column + name, y: 0 }, SIZE.text),
          ],
        };
      });
      this.put({ height: Math.max(...pair.map((p) => p.high)) + 0.5, marks: pair.flatMap((p) => p.marks) });
    }
    if (!code) return;
    const under = this.wrap(code.text, code.scene.width, 2.2);
    this.marks.push(
      ...shifted(code.scene.marks, { x: AREA.width - code.scene.width, y: top }),
      ...lines(under, { x: AREA.width - code.scene.width, y: top + code.scene.height }, 2.2),
    );
    this.y = Math.max(this.y, top + code.scene.height + height(under.length, 2.2));
  }

  private row(cells: Cell[], shares: number[], bold: boolean): Piece {
    const size = SIZE.small;
    let x = 0;
    let high = 0;
    const marks: Mark[] = [];
    const rules: number[] = [];
    cells.forEach((c, i) => {
      const wide = shares[i] * AREA.width;
      rules.push(x);
      if (typeof c === 'string') {
        const all = this.wrap(c, wide - 2 * PAD, size, bold);
        marks.push(...lines(all, { x: x + PAD, y: PAD }, size, bold));
        high = Math.max(high, height(all.length, size));
      } else {
        marks.push(...shifted(c.marks, { x: x + (wide - c.width) / 2, y: PAD }));
        high = Math.max(high, c.height);
      }
      x += wide;
    });
    high += 2 * PAD;
    const frame: Mark[] = [
      {
        kind: 'rectangle',
        at: { x: 0, y: 0 },
        width: AREA.width,
        height: high,
        weight: 'fine',
        fill: bold ? 'light' : undefined,
      },
      ...rules.slice(1).map((at) => line({ x: at, y: 0 }, { x: at, y: high }, 'fine')),
    ];
    return { height: high, marks: [...frame, ...marks] };
  }

  private table({ head, shares, rows }: Extract<Block, { kind: 'table' }>): void {
    const top = this.row(head, shares, true);
    const all = rows.map((r) => this.row(r, shares, false));
    this.put(top, all[0]?.height);
    for (const piece of all) {
      if (this.y + piece.height > AREA.height) {
        this.turn();
        this.put(top);
      }
      this.put(piece);
    }
    this.y += 2;
  }

  private check({ text, done }: { text: string; done?: string }): Piece {
    const all = this.wrap(done ? `${text} (${done})` : text, AREA.width - BOX - 2, SIZE.text);
    const box: Mark = { kind: 'rectangle', at: { x: 0, y: 0.2 }, width: BOX, height: BOX, weight: 'thin' };
    return {
      height: Math.max(BOX + 0.8, height(all.length, SIZE.text)) + 0.6,
      marks: [
        box,
        ...(done ? lines(['✓'], { x: 0.3, y: 0.1 }, SIZE.text, true) : []),
        ...lines(all, { x: BOX + 2, y: 0 }, SIZE.text),
      ],
    };
  }

  private blanks({ names, lines: many }: Extract<Block, { kind: 'blanks' }>): void {
    const wide = AREA.width / names.length;
    for (let i = 0; i < many; i++)
      this.put({
        height: 9,
        marks: names.flatMap((name, k) => [
          ...lines([name], { x: k * wide, y: 1 }, SIZE.small),
          line({ x: k * wide, y: 8 }, { x: (k + 1) * wide - 4, y: 8 }, 'fine'),
        ]),
      });
  }

  block(b: Block): void {
    switch (b.kind) {
      case 'heading':
        this.y += 2;
        return void this.put(this.said(b.text, SIZE.heading, true), FOLLOWS);
      case 'text':
        return void this.put(this.said(b.text, b.quiet ? SIZE.small : SIZE.text));
      case 'picture':
        this.put({ height: b.scene.height + 2, marks: b.scene.marks });
        return;
      case 'table':
        return this.table(b);
      case 'checks':
        return b.items.forEach((item) => void this.put(this.check(item)));
      case 'blanks':
        return this.blanks(b);
    }
  }

  /** All pages, each with its head. */
  pages(paper: Paper): Scene[] {
    const all = [...this.done, this.marks];
    const { width, height: high } = PAPERS[paper];
    const corner = { x: (width - AREA.width) / 2, y: (high - AREA.height) / 2 };
    return all.map((marks, i) => ({
      width,
      height: high,
      marks: shifted(
        [
          words({ x: 0, y: 3 }, this.wrap(this.sheet.subtitle, AREA.width - 30, SIZE.small)[0], SIZE.small),
          words({ x: AREA.width, y: 3 }, `page ${i + 1} of ${all.length}`, SIZE.small, { anchor: 'end' }),
          line({ x: 0, y: 4.5 }, { x: AREA.width, y: 4.5 }, 'fine'),
          ...marks,
        ],
        corner,
      ),
    }));
  }
}

/** A sheet as the pages of a paper. */
export function pagesOf(sheet: Sheet, paper: Paper, letters: Letters): Scene[] {
  const layout = new Layout(sheet, letters);
  sheet.blocks.forEach((b) => layout.block(b));
  return layout.pages(paper);
}
