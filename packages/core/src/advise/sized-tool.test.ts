import { kindOf } from '../operation/registry';
import { toolFindings } from '../shop/check';
import { HOLDERS } from '../shop/library/holders';
import { TOOLS } from '../shop/library';
import { isSize, makesThreads, readSize, sizedTools } from './sized-tool';

const made = (kind: string, text: string) => {
  const k = kindOf(kind)!;
  const size = readSize(text, 'mm', makesThreads(k, TOOLS));
  return size.ok ? sizedTools(k, size, TOOLS, HOLDERS, 'mm') : size.why;
};
const names = (kind: string, text: string) => {
  const tools = made(kind, text);
  return typeof tools === 'string' ? tools : tools.map((t) => t.name);
};

test('a size no tool has becomes a tool of every kind that does the operation', () => {
  expect(names('drill', '6.7')).toContain('6.7 mm twist drill');
  expect(names('tap', 'M7x1')).toEqual(expect.arrayContaining(['M7x1 cutting tap', 'M7x1 forming tap']));
  expect(names('thread-mill', 'M18x1.5')[0]).toMatch(/^12 mm .* thread mill for M18x1.5$/);
  expect(names('tap', 'round')).toMatch(/thread|M6|give/i);
});

test('every tool made is whole: in a free pocket, of its size, without a finding', () => {
  for (const kind of ['pocket', 'drill', 'tap', 'thread-mill', 'chamfer', 'face']) {
    const text = kind === 'tap' || kind === 'thread-mill' ? 'M9x1' : '9';
    const tools = made(kind, text);
    expect(Array.isArray(tools) && tools.length).toBeTruthy();
    const size = readSize(text, 'mm', kind === 'tap' || kind === 'thread-mill');
    for (const t of tools as typeof TOOLS) {
      expect(toolFindings(t).map((f) => f.message)).toEqual([]);
      expect(TOOLS.some((own) => own.number === t.number || own.id === t.id)).toBe(false);
      expect(size.ok && isSize(t, size)).toBe(true);
    }
  }
});
