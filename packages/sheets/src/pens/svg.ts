/** Draws scenes as SVG, in mm: for pages on a screen and in the browser’s own print. */
import { GREYS, Grey, Mark, Scene, Spot, WEIGHTS } from '../scene';

export const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[c]!);

const n = (value: number) => String(Math.round(value * 1000) / 1000);
const greyOf = (grey: Grey | undefined): string => {
  if (!grey) return 'none';
  const level = Math.round(GREYS[grey] * 255);
  return `rgb(${level},${level},${level})`;
};

/** Rings as the data of one path, holes left open by the even-odd rule. */
export const pathData = (rings: Spot[][]): string =>
  rings.map((ring) => `M${ring.map((p) => `${n(p.x)} ${n(p.y)}`).join('L')}Z`).join('');

type Looks = { weight?: keyof typeof WEIGHTS; dashed?: boolean; fill?: Grey };
const looks = ({ weight, dashed, fill }: Looks): string =>
  [
    `fill="${greyOf(fill)}"`,
    weight ? `stroke="${greyOf('ink')}" stroke-width="${WEIGHTS[weight]}" stroke-linejoin="round"` : '',
    dashed ? 'stroke-dasharray="1.6 1"' : '',
  ]
    .filter(Boolean)
    .join(' ');

function drawn(mark: Mark): string {
  switch (mark.kind) {
    case 'line':
      return `<line x1="${n(mark.from.x)}" y1="${n(mark.from.y)}" x2="${n(mark.to.x)}" y2="${n(mark.to.y)}" ${looks(mark)}/>`;
    case 'polygon':
      return `<path fill-rule="evenodd" d="${pathData(mark.rings)}" ${looks(mark)}/>`;
    case 'circle':
      return `<circle cx="${n(mark.at.x)}" cy="${n(mark.at.y)}" r="${n(mark.radius)}" ${looks(mark)}/>`;
    case 'rectangle':
      return `<rect x="${n(mark.at.x)}" y="${n(mark.at.y)}" width="${n(mark.width)}" height="${n(mark.height)}" ${looks(mark)}/>`;
    case 'text': {
      const bold = mark.bold ? ' font-weight="700"' : '';
      return `<text x="${n(mark.at.x)}" y="${n(mark.at.y)}" font-size="${n(mark.size)}" text-anchor="${mark.anchor ?? 'start'}"${bold}>${escaped(mark.text)}</text>`;
    }
  }
}

/** A scene as an SVG element as wide as it is on paper, or as its container where that is narrower. */
export const svgOf = ({ width, height, marks }: Scene, told: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" role="img" aria-label="${escaped(told)}" viewBox="0 0 ${n(width)} ${n(height)}" style="width:100%;max-width:${n(width)}mm">${marks.map(drawn).join('')}</svg>`;
