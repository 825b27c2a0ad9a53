/** A sheet as a page that stands by itself: to read on a screen, to print, to keep. */
import { Block, Cell, Sheet } from './content';
import { escaped, svgOf } from './pens/svg';

const STYLE = `@page{margin:12mm}
body{font:15px/1.4 "IBM Plex Sans",system-ui,sans-serif;max-width:190mm;margin:1.5rem auto;padding:0 1rem;color:#141414;background:#fff}
h1{font-size:1.5rem;margin:0 0 .3rem}h2{font-size:1.1rem;margin:1.2rem 0 .3rem;border-bottom:1px solid #888;break-after:avoid}
header{display:flex;gap:1rem;justify-content:space-between;align-items:flex-start}
dl{display:grid;grid-template-columns:max-content 1fr;gap:0 .8rem;margin:0}dt{color:#555}dd{margin:0;overflow-wrap:anywhere}
table{border-collapse:collapse;width:100%;margin:.4rem 0}th,td{border:1px solid #aaa;padding:.25rem .4rem;text-align:left;vertical-align:top;white-space:pre-line;overflow-wrap:anywhere}
th{font-weight:600;background:#f0f0f0}tr{break-inside:avoid}thead{display:table-header-group}
.quiet{color:#555;font-size:.9rem}.check{display:flex;gap:.6rem;margin:.25rem 0;break-inside:avoid}.box{flex:none;width:.9rem;height:.9rem;border:1.5px solid #141414;margin-top:.2rem}
.blanks{display:flex;gap:1rem}.blank{flex:1;border-bottom:1px solid #888;height:2rem;color:#555;font-size:.9rem}
.code{flex:none;width:24mm;text-align:center;font-size:.7rem;overflow-wrap:anywhere}svg text{font-family:"IBM Plex Sans",system-ui,sans-serif}
@media(max-width:600px){table,thead,tbody,tr,td{display:block}thead{display:none}tr{border:1px solid #aaa;margin:.4rem 0;padding:.3rem}td{border:0;padding:.1rem}td:empty{display:none}td[data-head]:not([data-head=""])::before{content:attr(data-head) ": ";color:#555}}`;

const cell = (c: Cell): string => (typeof c === 'string' ? escaped(c) : svgOf(c, 'drawn to scale'));

function block(b: Block): string {
  switch (b.kind) {
    case 'heading':
      return `<h2>${escaped(b.text)}</h2>`;
    case 'text':
      return `<p${b.quiet ? ' class="quiet"' : ''}>${escaped(b.text)}</p>`;
    case 'picture':
      return `<figure style="margin:.4rem 0">${svgOf(b.scene, b.told)}</figure>`;
    case 'table': {
      const head = b.head.map((h, i) => `<th style="width:${Math.round(b.shares[i] * 100)}%">${escaped(h)}</th>`);
      const rows = b.rows.map(
        (row) => `<tr>${row.map((c, i) => `<td data-head="${escaped(b.head[i])}">${cell(c)}</td>`).join('')}</tr>`,
      );
      return `<table><thead><tr>${head.join('')}</tr></thead><tbody>${rows.join('')}</tbody></table>`;
    }
    case 'checks':
      return b.items
        .map(
          ({ text, done }) =>
            `<div class="check"><span class="box">${done ? '✓' : ''}</span><span>${escaped(text)}${done ? ` <span class="quiet">${escaped(done)}</span>` : ''}</span></div>`,
        )
        .join('');
    case 'blanks':
      return Array.from(
        { length: b.lines },
        () =>
          `<div class="blanks">${b.names.map((name) => `<div class="blank">${escaped(name)}</div>`).join('')}</div>`,
      ).join('');
  }
}

/** The whole page. */
export function htmlOf({ title, subtitle, facts, code, blocks }: Sheet): string {
  const named = facts.map(([name, value]) => `<dt>${escaped(name)}</dt><dd>${escaped(value)}</dd>`).join('');
  const corner = code ? `<div class="code">${svgOf(code.scene, `Code: ${code.text}`)}${escaped(code.text)}</div>` : '';
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escaped(subtitle)}</title>
<style>${STYLE}</style></head><body>
<header><div><h1>${escaped(title)}</h1><dl>${named}</dl></div>${corner}</header>
${blocks.map(block).join('\n')}
</body></html>
`;
}
