import { useCallback, useEffect, useMemo, useState } from 'react';
import {
  Coolant,
  CutInput,
  Machine,
  Material,
  Situation,
  Suggestion,
  Tool,
  WorkGrip,
  cutState,
  departure,
  gaugesOf,
  suggest,
  suggestBite,
} from '@tidypath/core';

/** What the calculator was told; bite and layer 0 follow the suggestion. */
export interface Told {
  toolId: string;
  materialId: string;
  machineId: string;
  ae: number;
  ap: number;
  boldness: number;
  /** HB of the bar at hand; 0 as the material’s figures are for. */
  hardness: number;
  grip: WorkGrip;
  /** What is switched on; nothing said is what the material is cut with best. */
  coolant: Coolant | '';
  /** A speed or a largest feed somebody gave; 0 for none. */
  rpm: number;
  feed: number;
}

const KEY = 'tidypath-calculator';
export const START: Told = {
  toolId: 't4',
  materialId: 'alu-6082',
  machineId: 'whimbrel',
  ae: 0,
  ap: 0,
  boldness: 0.5,
  hardness: 0,
  grip: 'fair',
  coolant: '',
  rpm: 0,
  feed: 0,
};

function remembered(): Told {
  try {
    return { ...START, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Told>) };
  } catch {
    return START;
  }
}

/** Whether this device could keep them: its storage may be full or forbidden. */
function remember(told: Told): boolean {
  try {
    localStorage.setItem(KEY, JSON.stringify(told));
    return true;
  } catch {
    return false;
  }
}

/** The calculator's fields, kept on this device, so that the second time starts where the first one stopped. */
export function useTold() {
  const [told, setTold] = useState(remembered);
  const [forgets, setForgets] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setForgets(!remember(told)), 300);
    return () => clearTimeout(timer);
  }, [told]);
  const tell = useCallback((more: Partial<Told>) => setTold((t) => ({ ...t, ...more })), []);
  return { told, tell, forgets };
}

/** What a machine can switch on, and nothing. */
export const coolantsAt = ({ coolants }: Machine): Coolant[] => ['off', ...coolants.filter((c) => c !== 'off')];

/** What is told to be on, where the machine has it. */
export const coolantIn = ({ coolant }: Pick<Told, 'coolant'>, machine: Machine): Coolant | undefined =>
  coolantsAt(machine).find((c) => c === coolant);

export interface Answered {
  situation: Situation;
  suggestion: Suggestion;
  /** The cut at what comes of it all. */
  cut: CutInput;
  bite: { ae: number; ap: number };
}

/** Everything the calculator says, from the same engine as the sentences of a job. */
export function answer(told: Told, tool: Tool, listed: Material, machine: Machine): Answered {
  const material = told.hardness ? { ...listed, atHand: told.hardness } : listed;
  const proposed = suggestBite(tool, material, machine, told.boldness);
  const bite = {
    ae: Math.min(told.ae || proposed.ae, tool.diameter),
    ap: Math.min(told.ap || proposed.ap, tool.fluteLength),
  };
  const situation: Situation = {
    tool,
    material,
    machine,
    ...bite,
    boldness: told.boldness,
    grip: told.grip,
    coolant: coolantIn(told, machine),
    asked: { rpm: told.rpm || undefined, feed: told.feed || undefined },
  };
  const suggestion = suggest(situation);
  return {
    situation,
    suggestion,
    bite: proposed,
    cut: { tool, material, machine, ...bite, rpm: suggestion.rpm, feed: suggestion.feed },
  };
}

/** The answer with its gauges and what was given against what would be suggested without it. */
export function useAnswer(
  told: Told,
  tool: Tool | undefined,
  material: Material | undefined,
  machine: Machine | undefined,
) {
  return useMemo(() => {
    if (!tool || !material || !machine) return undefined;
    const found = answer(told, tool, material, machine);
    const free = suggest({ ...found.situation, asked: undefined });
    return {
      ...found,
      state: cutState(found.cut),
      gauges: gaugesOf(found.cut),
      departure: departure(found.situation, free, found.suggestion),
    };
  }, [told, tool, material, machine]);
}

/** What the calculator says about one cut. */
export type Found = NonNullable<ReturnType<typeof useAnswer>>;
