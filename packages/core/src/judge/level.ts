import { Finding, finding } from '../quantity/finding';
import { MM_PER_INCH } from '../quantity/units';
import { Material } from '../shop/material';
import { Machine } from '../machine/machine';
import { Tool, formOf, isAxial, isBeam } from '../shop/tool';
import { Samples } from '../simulate/samples';
import { MOVE, Motions } from '../path/motions';
import { wordsOf } from '../program/read/words';
import { maths } from '../quantity/maths';

/** What a levelled program is to hold. */
export interface LevelAsk {
  /** Thickest chip, as a share of the usual one of each tool in this program: its middle value over the time in cut. */
  chip: number;
  /** Greatest share of the spindle's power. */
  power: number;
  /** Feeds stay within these shares of what is written. */
  least: number;
  most: number;
}

export const LEVEL_DEFAULTS: LevelAsk = { chip: 1, power: 0.8, least: 0.4, most: 2 };

export interface LevelInput {
  text: string;
  motions: Motions;
  samples: Samples;
  tools: Map<number, Tool>;
  material: Material;
  machine: Pick<Machine, 'maxFeed'>;
}

export interface Levelled {
  text: string;
  /** Lines that were given another feed. */
  changed: number;
  findings: Finding[];
}

/** A move down by more than this share of its length enters, and keeps its feed. */
const STEEP = 0.02;
/** A feed that is this much lower than it could be is kept, so that not every line gets its own. */
const CLOSE = 0.93;
/** Smaller changes than these are not worth a word in the program: what could be faster, and what should be slower. */
const FASTER = 1.1;
const SLOWER = 0.97;
/** Feeds are written to this, mm/min. */
const STEP = 10;

/** Middle value of the chip over the time each tool is in cut, and its greatest side force. */
function usualOf({ samples: s, motions }: LevelInput): Map<number, { chip: number; force: number }> {
  const byTool = new Map<number, { chip: number; seconds: number }[]>();
  const force = new Map<number, number>();
  for (let i = 0; i < s.count; i++) {
    if (s.chip[i] <= 0) continue;
    const tool = motions.tool[s.motion[i]];
    const seconds = s.time[i] - (i ? s.time[i - 1] : 0);
    if (!byTool.has(tool)) byTool.set(tool, []);
    byTool.get(tool)!.push({ chip: s.chip[i], seconds });
    force.set(tool, Math.max(force.get(tool) ?? 0, s.force[i]));
  }
  const middle = (list: { chip: number; seconds: number }[]) => {
    const sorted = [...list].sort((a, b) => a.chip - b.chip);
    let half = sorted.reduce((sum, e) => sum + e.seconds, 0) / 2;
    return (sorted.find((e) => (half -= e.seconds) <= 0) ?? sorted[sorted.length - 1]).chip;
  };
  return new Map([...byTool].map(([tool, list]) => [tool, { chip: middle(list), force: force.get(tool)! }]));
}

/** Whether the feed of a motion may be changed at all. */
function isFree(m: Motions, i: number, tool: Tool | undefined): boolean {
  if (!tool || isAxial(tool) || isBeam(tool) || formOf(tool) === 'tap' || formOf(tool) === 'thread') return false;
  if (m.type[i] < MOVE.line || m.type[i] > MOVE.arcCcw || i === 0) return false;
  const flat = maths.hypot(m.x[i] - m.x[i - 1], m.y[i] - m.y[i - 1]);
  return m.z[i - 1] - m.z[i] <= STEEP * (m.type[i] === MOVE.line ? flat : Math.max(flat, Math.abs(m.x[i] - m.cx[i])));
}

/** The feed of every motion that holds what is asked, mm/min. */
function feedsOf(input: LevelInput, ask: LevelAsk): Float64Array {
  const { samples: s, motions: m, tools, material, machine } = input;
  const usual = usualOf(input);
  // Power and force grow with the chip to this power, so their limits are met at its inverse.
  const growth = 1 / (1 - material.mc);
  const share = new Float64Array(m.count).fill(Infinity);
  for (let i = 0; i < s.count; i++) {
    const motion = s.motion[i];
    const { chip, force } = usual.get(m.tool[motion]) ?? { chip: 0, force: 0 };
    if (s.chip[i] <= 0 || chip <= 0) continue;
    const allowed = Math.min(
      (ask.chip * chip) / s.chip[i],
      maths.pow(ask.power / Math.max(1e-9, s.load[i]), growth),
      maths.pow(force / Math.max(1e-9, s.force[i]), growth),
    );
    if (allowed < share[motion]) share[motion] = allowed;
  }
  return Float64Array.from({ length: m.count }, (_, i) => {
    if (share[i] === Infinity || !isFree(m, i, tools.get(m.tool[i]))) return m.feed[i];
    if (share[i] < FASTER && share[i] > SLOWER) return m.feed[i];
    const held = Math.min(ask.most, Math.max(ask.least, share[i])) * m.feed[i];
    return Math.max(STEP, Math.floor(Math.min(machine.maxFeed, held) / STEP) * STEP);
  });
}

/** Lowest feed of the cutting motions of each line. */
function byLine(m: Motions, feeds: Float64Array): Map<number, number> {
  const lines = new Map<number, number>();
  for (let i = 0; i < m.count; i++) {
    if (m.type[i] < MOVE.line || m.type[i] > MOVE.arcCcw) continue;
    lines.set(m.line[i], Math.min(lines.get(m.line[i]) ?? Infinity, feeds[i]));
  }
  return lines;
}

/** A line with another feed; remarks stay where they are. */
function withFeed(line: string, feed: string): string {
  const remark = line.search(/[(;]/);
  const code = remark < 0 ? line : line.slice(0, remark);
  const rest = remark < 0 ? '' : line.slice(remark);
  if (/F/i.test(code)) return code.replace(/F[ \t]*[\d.]+/i, `F${feed}`) + rest;
  return code.replace(/[ \t\r]*$/, (end) => ` F${feed}${end}`) + rest;
}

/**
 * Rewrites the feeds of a program so that the chip stays as thick as asked, within the spindle's power and the side force
 * there was. Only F words change: where the tool goes is left as it is, as are entries, drilling, taps and threads.
 */
export function levelFeed(input: LevelInput, ask: LevelAsk = LEVEL_DEFAULTS): Levelled {
  const { text, motions } = input;
  const lines = text.split('\n');
  const blocks = lines.map((line) => wordsOf(line).words);
  const odd = blocks.findIndex((words) =>
    words.some((w) => (w.letter === 'G' && (w.value === 93 || w.value === 95)) || (w.letter === 'M' && w.value === 98)),
  );
  if (odd >= 0) {
    const place = { line: odd + 1 };
    return {
      text,
      changed: 0,
      findings: [finding('not-levelled', {}, place)],
    };
  }
  const wanted = byLine(motions, feedsOf(input, ask));
  const written = byLine(motions, motions.feed);
  const point = /F[ \t]*\d+\.(?!\d)/i.test(text) ? '.' : '';
  let scale = 1;
  let changed = 0;
  /** F in force as the new program stands, in its own unit. */
  let now = NaN;
  const out = lines.map((line, k) => {
    for (const w of blocks[k]) {
      if (w.letter === 'G' && (w.value === 20 || w.value === 70)) scale = MM_PER_INCH;
      if (w.letter === 'G' && (w.value === 21 || w.value === 71)) scale = 1;
    }
    const own = blocks[k].find((w) => w.letter === 'F')?.value;
    const feed = wanted.get(k + 1);
    if (feed === undefined) {
      if (own !== undefined) now = own;
      return line;
    }
    const before = written.get(k + 1)!;
    const isChanged = Math.abs(feed - before) > 1e-6;
    const asked = isChanged ? feed / scale : before / scale;
    if (isChanged && now <= asked + 1e-9 && now >= CLOSE * asked && own === undefined) return line;
    if (Math.abs(asked - (own ?? now)) < 1e-9) {
      now = asked;
      return line;
    }
    changed++;
    now = scale === 1 ? asked : Math.floor(asked * 10) / 10;
    return withFeed(line, `${Number(now.toFixed(3))}${Number.isInteger(now) ? point : ''}`);
  });
  return { text: out.join('\n'), changed, findings: [] };
}
