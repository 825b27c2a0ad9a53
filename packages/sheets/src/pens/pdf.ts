/** Draws pages as PDF, with the font in the file. On the server and the command line only: the font is read from disk. */
import { readFileSync } from 'node:fs';
import { jsPDF } from 'jspdf';
import { Sheet, text } from '../content';
import { Letters, PAPERS, Paper, pagesOf } from '../pages';
import { GREYS, Grey, Mark, Scene, Spot, WEIGHTS } from '../scene';

const FONT = 'IBMPlexSans';
const FILES = { normal: '400Regular/IBMPlexSans_400Regular.ttf', bold: '700Bold/IBMPlexSans_700Bold.ttf' } as const;
const POINTS = 72 / 25.4;
const INK = Math.round(GREYS.ink * 255);

const read = (path: string) =>
  readFileSync(require.resolve(`@expo-google-fonts/ibm-plex-sans/${path}`)).toString('base64');
let fonts: Record<keyof typeof FILES, string> | undefined;
const fontsOf = () => (fonts ??= { normal: read(FILES.normal), bold: read(FILES.bold) });

/** Signs the font has not, that are drawn. */
const DIAMETER = '⌀';

class Pen implements Letters {
  readonly doc: jsPDF;
  private readonly known: Record<number, number>;
  /** Signs that nobody could print, by how often they would have been. */
  missed = 0;

  constructor(paper: Paper, title: string, made: Date) {
    this.doc = new jsPDF({ unit: 'mm', format: [PAPERS[paper].width, PAPERS[paper].height], compress: true });
    for (const [style, file] of Object.entries(fontsOf())) {
      this.doc.addFileToVFS(`${style}.ttf`, file);
      this.doc.addFont(`${style}.ttf`, FONT, style);
    }
    this.doc.setFont(FONT, 'normal');
    const { metadata } = this.doc.getFont() as unknown as {
      metadata: { cmap: { unicode: { codeMap: Record<number, number> } } };
    };
    this.known = metadata.cmap.unicode.codeMap;
    this.doc.setProperties({ title });
    // The same sheet is the same file.
    this.doc.setCreationDate(made);
    this.doc.setFileId('0'.repeat(32));
  }

  private has = (letter: string) => this.known[letter.codePointAt(0)!] !== undefined;

  /** Runs of letters the font has, and single signs it has not. */
  private runs(said: string): string[] {
    const runs: string[] = [];
    let open = false;
    for (const letter of said) {
      const printed = this.has(letter);
      if (printed && open) runs[runs.length - 1] += letter;
      else runs.push(letter);
      open = printed;
    }
    return runs;
  }

  private runWidth = (run: string) => this.doc.getTextWidth(this.has(run) ? run : 'O');

  width(said: string, size: number, bold: boolean): number {
    this.set(size, bold);
    return this.runs(said).reduce((sum, run) => sum + this.runWidth(run), 0);
  }

  private set(size: number, bold: boolean): void {
    this.doc.setFont(FONT, bold ? 'bold' : 'normal');
    this.doc.setFontSize(size * POINTS);
  }

  private text({ at, text: said, size, anchor = 'start', bold = false }: Extract<Mark, { kind: 'text' }>): void {
    const wide = this.width(said, size, bold);
    let x = at.x - (anchor === 'end' ? wide : anchor === 'middle' ? wide / 2 : 0);
    this.doc.setTextColor(INK, INK, INK);
    for (const run of this.runs(said)) {
      const [own, first] = [this.runWidth(run), this.has(run)];
      if (first) this.doc.text(run, x, at.y);
      else this.sign(run, { x, y: at.y }, own, size);
      x += own;
    }
  }

  /** A diameter is drawn; anything else the font has not is a box, and counted. */
  private sign(run: string, { x, y }: Spot, wide: number, size: number): void {
    const [r, middle] = [wide * 0.36, y - size * 0.33];
    this.doc.setDrawColor(INK);
    this.doc.setLineWidth(size * 0.07);
    if (run === DIAMETER) {
      this.doc.circle(x + wide / 2, middle, r);
      this.doc.line(x + wide / 2 - r * 1.2, middle + r * 1.4, x + wide / 2 + r * 1.2, middle - r * 1.4);
      return;
    }
    this.missed++;
    this.doc.rect(x + wide * 0.12, middle - r, wide * 0.76, 2 * r);
  }

  /** Sets line and fill, and tells jsPDF which of them to use. */
  private style({ weight, dashed, fill }: { weight?: keyof typeof WEIGHTS; dashed?: boolean; fill?: Grey }) {
    const grey = fill ? Math.round(GREYS[fill] * 255) : undefined;
    if (grey !== undefined) this.doc.setFillColor(grey, grey, grey);
    if (weight) {
      this.doc.setDrawColor(INK);
      this.doc.setLineWidth(WEIGHTS[weight]);
      this.doc.setLineDashPattern(dashed ? [1.6, 1] : [], 0);
    }
    return fill ? (weight ? 'B' : 'F') : weight ? 'S' : null;
  }

  private polygon(rings: Spot[][], style: string): void {
    for (const ring of rings) {
      ring.forEach(({ x, y }, i) => void (i === 0 ? this.doc.moveTo(x, y) : this.doc.lineTo(x, y)));
      this.doc.close();
    }
    if (style === 'S') this.doc.stroke();
    else if (style === 'F') this.doc.fillEvenOdd();
    else this.doc.fillStrokeEvenOdd();
  }

  draw(mark: Mark): void {
    if (mark.kind === 'text') return this.text(mark);
    const style = this.style(mark.kind === 'line' ? { weight: 'thin', ...mark } : mark);
    if (!style) return;
    switch (mark.kind) {
      case 'line':
        return void this.doc.line(mark.from.x, mark.from.y, mark.to.x, mark.to.y, 'S');
      case 'polygon':
        return this.polygon(mark.rings, style);
      case 'circle':
        return void this.doc.circle(mark.at.x, mark.at.y, mark.radius, style);
      case 'rectangle':
        return void this.doc.rect(mark.at.x, mark.at.y, mark.width, mark.height, style);
    }
  }

  pages(all: Scene[]): void {
    all.forEach(({ marks }, i) => {
      if (i > 0) this.doc.addPage();
      marks.forEach((m) => this.draw(m));
    });
  }
}

/**
 * A sheet as a PDF. Signs that are neither Latin, Greek nor Cyrillic stand as boxes, and how many is told at its end.
 * @param made the day it says it was made
 */
export function pdfOf(sheet: Sheet, paper: Paper, made: Date): Uint8Array {
  const write = (one: Sheet) => {
    const pen = new Pen(paper, one.subtitle, made);
    pen.pages(pagesOf(one, paper, pen));
    return pen;
  };
  let pen = write(sheet);
  if (pen.missed > 0) {
    const count = pen.missed === 1 ? 'One sign is' : `${pen.missed} signs are`;
    pen = write({
      ...sheet,
      blocks: [...sheet.blocks, text(`${count} of a script this font has not: each stands as a box.`)],
    });
  }
  return new Uint8Array(pen.doc.output('arraybuffer'));
}
