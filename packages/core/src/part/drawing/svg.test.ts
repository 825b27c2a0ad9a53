import { asCircle, chainBounds, chainLength, signedArea } from '../../geometry/plane/chain';
import { importDrawing } from './drawing';
import { readSvg } from './svg';

const svg = (body: string, attributes = 'width="100mm" height="80mm" viewBox="0 0 100 80"') =>
  `<?xml version="1.0"?>\n<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>\n${body}\n</svg>`;
const only = (text: string) => {
  const { curves, findings } = readSvg(text);
  expect(findings).toEqual([]);
  expect(curves).toHaveLength(1);
  return curves[0].chain;
};

describe('an SVG drawing', () => {
  test('Y goes up from its lower edge, in mm', () => {
    const { curves, unit } = readSvg(svg('<rect x="10" y="20" width="30" height="15"/>'));
    expect(unit).toBe('mm');
    expect(chainBounds(curves[0].chain)).toEqual({ minX: 10, minY: 45, maxX: 40, maxY: 60 });
  });

  test.each([
    ['4in', '0 0 96 96', 'inch', (4 * 25.4) / 96],
    ['10cm', '0 0 50 50', 'mm', 2],
    ['72pt', '0 0 72 72', 'mm', 25.4 / 72],
    ['100', '0 0 100 100', undefined, 1],
    ['100%', '0 0 100 100', undefined, 1],
  ])('a width of %s over a view of %s is in %s', (width, view, unit, scale) => {
    const read = readSvg(
      svg('<line x1="0" y1="0" x2="10" y2="0"/>', `width="${width}" height="${width}" viewBox="${view}"`),
    );
    expect(read.unit).toBe(unit);
    expect(chainLength(read.curves[0].chain)).toBeCloseTo(10 * scale, 9);
  });

  test('where no unit is named its own is what was told', () => {
    const text = svg('<line x1="0" y1="0" x2="2" y2="0"/>', 'viewBox="0 0 10 10"');
    expect(chainLength(readSvg(text, 'inch').curves[0].chain)).toBeCloseTo(50.8, 9);
  });

  test.each([
    ['a circle', '<circle cx="30" cy="40" r="6.5"/>'],
    ['two arcs', '<path d="M23.5 40a6.5 6.5 0 0 0 13 0 6.5 6.5 0 0 0-13 0z"/>'],
    [
      'four curves',
      '<path d="M23.5 40C23.5 36.41 26.41 33.5 30 33.5S36.5 36.41 36.5 40 33.59 46.5 30 46.5 23.5 43.59 23.5 40Z"/>',
    ],
    ['one turned and moved', '<g transform="translate(30 40) rotate(33)"><circle r="6.5"/></g>'],
    ['one that is used', '<defs><circle id="c" r="6.5"/></defs><use href="#c" x="30" y="40"/>'],
    ['one of a mirrored group', '<g transform="matrix(-1 0 0 1 60 0)"><circle cx="30" cy="40" r="6.5"/></g>'],
    ['an ellipse that is scaled round', '<ellipse cx="15" cy="40" rx="3.25" ry="6.5" transform="scale(2 1)"/>'],
  ])('%s comes in as a round hole', (_, body) => {
    const round = asCircle(only(svg(body)))!;
    expect(round.radius).toBeCloseTo(6.5, 2);
    expect(round.centre.x).toBeCloseTo(30, 2);
    expect(round.centre.y).toBeCloseTo(40, 2);
    const [feature] = importDrawing(svg(`<rect width="100" height="80"/>${body}`)).features.filter(
      (f) => f.meaning === 'hole',
    );
    expect(feature.through).toBe(true);
  });

  test('large and small arcs bulge to their own side', () => {
    // A circle segment of 2 mm height over a chord of 8: radius 5; its large rest is the circle less that.
    const small = only(svg('<path d="M10 10A5 5 0 0 1 18 10Z"/>'));
    const large = only(svg('<path d="M10 10A5 5 0 1 1 18 10Z"/>'));
    const segment = 25 * Math.acos(3 / 5) - 3 * 4;
    expect(Math.abs(signedArea(small))).toBeCloseTo(segment, 6);
    expect(Math.abs(signedArea(large))).toBeCloseTo(25 * Math.PI - segment, 6);
    expect(chainBounds(large).maxY - chainBounds(large).minY).toBeCloseTo(8, 6);
  });

  test('an ellipse stays within a hundredth of what it is', () => {
    const chain = only(svg('<ellipse cx="50" cy="40" rx="30" ry="12"/>'));
    expect(Math.abs(signedArea(chain))).toBeCloseTo(Math.PI * 30 * 12, 0);
    const { minX, maxX, minY, maxY } = chainBounds(chain);
    [minX - 20, maxX - 80, minY - 28, maxY - 52].forEach((off) => expect(Math.abs(off)).toBeLessThan(0.011));
  });

  test('rounded rectangles, polygons and relative paths', () => {
    const area = (body: string) => Math.abs(signedArea(only(svg(body))));
    expect(area('<rect width="20" height="10" rx="3"/>')).toBeCloseTo(200 - (4 - Math.PI) * 9, 6);
    expect(area('<polygon points="0,0 10,0 10,10"/>')).toBeCloseTo(50, 9);
    expect(area('<path d="m5 5h10v10h-10z"/>')).toBeCloseTo(100, 9);
  });

  test('layers are the names of groups; what is hidden or only defined is not drawn', () => {
    const { curves } = readSvg(
      svg(
        '<g id="holes"><circle cx="9" cy="9" r="2"/></g><g style="display: none"><circle r="3"/></g>' +
          '<defs><circle r="4"/></defs><clipPath><circle r="5"/></clipPath><line x2="9" visibility="hidden"/>',
      ),
    );
    expect(curves.map((c) => c.layer)).toEqual(['holes']);
  });

  test('what is no curve is told by kind', () => {
    const { findings, curves } = readSvg(svg('<text x="1">A</text><text>B</text><image href="x"/><line x2="5"/>'));
    expect(curves).toHaveLength(1);
    expect(findings.map((f) => [f.code, f.place.line])).toEqual([
      ['svg-skipped', 3],
      ['svg-skipped', 3],
    ]);
    expect(findings[0].message).toMatch(/^2 x text/);
  });
});

describe('a broken SVG drawing', () => {
  test.each([
    ['<svg><line x2="4"/><g></svg>', ['svg-broken']],
    ['<svg><path d="M0 0L10 0L oops"/></svg>', ['svg-path']],
    ['<html><body/></html>', ['svg-empty']],
    ['<svg/>', ['svg-empty']],
    ['<svg><use href="#gone"/><line x2="4"/></svg>', ['svg-skipped']],
    ['<svg><g id="a"><use href="#a"/><line x2="4"/></g></svg>', ['svg-skipped']],
  ])('%s: %s', (text, codes) => {
    expect(readSvg(text).findings.map((f) => f.code)).toEqual(codes);
  });

  test('copies of copies end with a word', () => {
    const more = Array.from({ length: 40 }, (_, i) => `<g id="g${i + 1}">${`<use href="#g${i}"/>`.repeat(10)}</g>`);
    const { findings, curves } = readSvg(
      `<svg><defs><line id="g0" x2="1"/>${more.join('')}</defs><use href="#g40"/></svg>`,
    );
    expect(findings.map((f) => f.code)).toContain('svg-too-many');
    expect(curves).toEqual([]);
  });
});
