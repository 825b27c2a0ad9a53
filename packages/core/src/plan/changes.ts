/** What differs between two states of a job, in words. */
import { Job } from '../document/job';
import { Machine } from '../machine/machine';
import { holdingOf } from '../holding/registry';
import { kindOf } from '../operation/registry';
import { hashOf } from '../quantity/hash';
import { ParameterInfo, ParameterUnit, parametersOf } from '../quantity/parameter';
import { parameterText } from '../quantity/parameter-text';
import { LengthUnit } from '../quantity/units';
import { Controller } from '../shop/controller';
import { Holder } from '../shop/holder';
import { Material } from '../shop/material';
import { Tool } from '../shop/tool';

type Plain = Record<string, unknown>;
type Item = { id: string; kind?: string };
type Infos = Record<string, ParameterInfo>;

const UNITS: Partial<Record<ParameterUnit, string>> = {
  length:
    'thickness tolerance x y z width height length diameter radius across depth left right front back top bottom bore corner clearance riser upper lower size dx dy centreX centreY bend offset approach before after by at',
  angle: 'turn angle',
  feed: 'feed entryFeed lead plunge last',
  minutes: 'minutes setUpMinutes reloadMinutes',
  share: 'boldness',
};
/** Fields no form describes: what they are called, where not by their name, and what they are measured in. */
const FIELDS: Infos = {
  toolId: { label: 'tool', help: '' },
  targets: { label: 'features', help: '' },
  customerNumber: { label: 'customer’s number', help: '' },
  ...Object.fromEntries(
    Object.entries(UNITS).flatMap(([unit, names]) =>
      names.split(' ').map((name) => [name, { label: wordsOf(name), help: '', unit: unit as ParameterUnit }]),
    ),
  ),
};

const DESCRIBED: Record<string, new () => object> = {
  tools: Tool,
  holder: Holder,
  machine: Machine,
  material: Material,
  controller: Controller,
};

/** "centreX" as it is said: "centre X". */
function wordsOf(field: string): string {
  return field.replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${/[XYZ]/.test(b) ? b : b.toLowerCase()}`);
}

/** Entries that are named one by one. */
const MOST_NAMED = 12;

const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isNamed = (value: unknown): value is { id: string; name?: string } =>
  isPlain(value) && typeof value.id === 'string';
const nameOf = (value: { id: string; name?: string }): string => `“${value.name ?? value.id}”`;

/** Names of everything in a job that is spoken of by its id. */
const namesIn = ({ tools, part, setups }: Job): [string, string][] =>
  [...tools, ...part.features, ...setups, ...setups.flatMap((s) => s.holding ?? [])].map((o) => [o.id, nameOf(o)]);

/** What forms say about the fields of something; for an operation or a holding, about the values of its kind. */
function infosOf(key: string, value: { kind?: string } = {}): Infos {
  const { kind = '' } = value;
  const of = { operations: kindOf, holding: holdingOf }[key];
  const described = of ? of(kind)?.Params : DESCRIBED[key];
  return described ? parametersOf(described) : {};
}

class Differing {
  readonly told: string[] = [];

  constructor(
    private readonly unit: LengthUnit,
    private readonly names: Map<string, string>,
  ) {}

  private tell(where: string[], what: string): void {
    this.told.push([...where, what].join(': '));
  }

  private text(value: unknown, info: ParameterInfo | undefined): string {
    if (value === undefined || value === '') return 'nothing';
    if (Array.isArray(value)) return this.listText(value);
    if (isNamed(value)) return nameOf(value);
    if (isPlain(value)) return this.plainText(value);
    if (typeof value === 'string' && this.names.has(value)) return this.names.get(value)!;
    return parameterText(info ?? { label: '', help: '' }, value, this.unit);
  }

  private listText(values: unknown[]): string {
    if (values.length > MOST_NAMED) return `${values.length} entries`;
    return values.map((v) => this.text(v, undefined)).join(values.some(isPlain) ? '; ' : ', ') || 'nothing';
  }

  /** All that is said in something that has no name of its own: "at floor, feature “Well”, offset 0.3 mm". */
  private plainText(value: Plain): string {
    const said = Object.entries(value).filter(([, v]) => v !== undefined && v !== '');
    return said.map(([key, v]) => `${FIELDS[key]?.label || wordsOf(key)} ${this.text(v, FIELDS[key])}`).join(', ');
  }

  /** One field that may differ. */
  field(key: string, before: unknown, after: unknown, where: string[], infos: Infos): void {
    if (hashOf(before ?? null) === hashOf(after ?? null)) return;
    const info = infos[key] ?? FIELDS[key];
    const label = info?.label ? info.label.toLowerCase() : wordsOf(key);
    if (Array.isArray(before) && Array.isArray(after) && [...before, ...after].every(isNamed))
      this.list(key, before as Item[], after as Item[], where);
    else if (isPlain(before) && isPlain(after) && before.id === after.id && before.type === after.type) {
      // The values of an operation are spoken of as its own.
      if (key === 'params') this.fields(before, after, where, infos);
      else this.fields(before, after, [...where, label], infosOf(key));
    } else {
      const [was, is] = [this.text(before, info), this.text(after, info)];
      this.tell(where, was === is ? `${label} changed` : `${label} ${is} instead of ${was}`);
    }
  }

  fields(before: Plain, after: Plain, where: string[], infos: Infos): void {
    for (const key of new Set([...Object.keys(before), ...Object.keys(after)]))
      this.field(key, before[key], after[key], where, infos);
  }

  /** Things with ids: what came, what went, what changed, and whether they stand in another order. */
  private list(key: string, before: Item[], after: Item[], where: string[]): void {
    const [was, is] = [before, after].map((all) => new Map(all.map((o) => [o.id, o])));
    for (const o of before) if (!is.has(o.id)) this.tell(where, `${nameOf(o)} taken out`);
    for (const o of after) if (!was.has(o.id)) this.tell(where, `${nameOf(o)} new`);
    const stayed = (all: Item[]) => all.filter((o) => was.has(o.id) && is.has(o.id)).map((o) => o.id);
    if (stayed(before).join() !== stayed(after).join()) this.tell(where, `${wordsOf(key)} in another order`);
    for (const o of after) {
      const old = was.get(o.id);
      if (old) this.fields(old as Plain & typeof old, o as Plain & typeof o, [...where, nameOf(o)], infosOf(key, o));
    }
  }
}

/**
 * What makes `after` another job than `before`, a line each, in the unit of `after`: "“Pocket”: stepover 2 mm instead of 1.5 mm".
 * Empty where they are the same.
 */
export function changesOf(before: Job, after: Job): string[] {
  const comparison = new Differing(after.unit, new Map([...namesIn(before), ...namesIn(after)]));
  comparison.fields(before as never, after as never, [], {});
  return comparison.told;
}
