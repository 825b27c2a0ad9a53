import { formatLength } from '../quantity/units';
import { Holder } from '../shop/holder';
import { Tool, formOf, isAxial } from '../shop/tool';
import { cutState } from './cut';
import { suggest } from './suggest';
import { Situation, Suggestion } from './suggestion';

/** A change that would let the cut run faster, worked out. */
export interface Lift {
  what: string;
  /** Which kind of change; for a tool or holder, its id. */
  change: { stickOut?: number; holderId?: string; ae?: number; ap?: number; toolId?: string };
  suggestion: Suggestion;
  /** Removal rate after it against before it; above 1 is faster. */
  gain: number;
}

/** What stands in the shop to change to. */
export interface Alternatives {
  tools: Tool[];
  holders: Holder[];
}

const WORTH = 1.03;
const MOST = 4;

const rate = (s: Situation, found: Suggestion) =>
  found.possible ? cutState({ ...s, rpm: found.rpm, feed: found.feed }).removalRate : 0;

/** Shortest stick-out that still leaves the flutes free, mm. */
const shortest = (s: Situation) => Math.ceil(Math.max(s.tool.fluteLength, isAxial(s.tool) ? 0 : s.ap) + 2);

/**
 * What would lift the limit that governs: a shorter stick-out, another holder, a lighter width, a shallower layer, another tool of the
 * same form and size or smaller. Each is computed as a cut of its own; only those that remove at least 3 % more a minute are told,
 * best first.
 */
export function lifts(s: Situation, { tools, holders }: Alternatives): Lift[] {
  const mm = (v: number) => formatLength(v, s.unit ?? 'mm');
  const now = rate(s, suggest(s));
  const axial = isAxial(s.tool);
  const tried: { what: string; change: Lift['change']; next: Situation }[] = [];
  const out = shortest(s);
  if (out < s.tool.stickOut)
    tried.push({
      what: `Let it stick out ${mm(out)} instead of ${mm(s.tool.stickOut)}`,
      change: { stickOut: out },
      next: { ...s, tool: { ...s.tool, stickOut: out } },
    });
  for (const holder of holders)
    if (
      holder.id !== s.tool.holder.id &&
      (holder.grip === 'arbor') === (s.tool.holder.grip === 'arbor') &&
      holder.grip !== 'tap chuck'
    )
      tried.push({
        what: `Put it in the ${holder.name}`,
        change: { holderId: holder.id },
        next: { ...s, tool: { ...s.tool, holder } },
      });
  if (!axial) {
    const ae = Math.round(s.ae * 60) / 100;
    const ap = Math.round(s.ap * 70) / 100;
    tried.push({
      what: `Bite ${mm(ae)} instead of ${mm(s.ae)}`,
      change: { ae },
      next: {
        ...s,
        ae,
        peakAe: s.peakAe === undefined ? undefined : Math.max(ae, Math.min(s.peakAe, ae * (s.peakAe / s.ae))),
      },
    });
    tried.push({ what: `Layers of ${mm(ap)} instead of ${mm(s.ap)}`, change: { ap }, next: { ...s, ap } });
    for (const tool of tools)
      if (
        tool.id !== s.tool.id &&
        formOf(tool) === formOf(s.tool) &&
        tool.diameter <= s.tool.diameter * 1.001 &&
        tool.cornerRadius <= s.tool.cornerRadius + 1e-9 &&
        tool.fluteLength >= s.ap
      )
        tried.push({
          what: `Take T${tool.number}, ${tool.name}`,
          change: { toolId: tool.id },
          next: {
            ...s,
            tool,
            ae: Math.min(s.ae, tool.diameter),
            peakAe: s.peakAe === undefined ? undefined : Math.min(s.peakAe, tool.diameter),
          },
        });
  }
  return tried
    .map(({ what, change, next }) => {
      const suggestion = suggest(next);
      return {
        what,
        change,
        suggestion,
        gain: now > 0 ? rate(next, suggestion) / now : suggestion.possible ? Infinity : 0,
      };
    })
    .filter((l) => l.gain >= WORTH)
    .sort((a, b) => b.gain - a.gain)
    .slice(0, MOST);
}
