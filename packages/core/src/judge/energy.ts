/** What a run takes from the mains. */
import { Machine, powerAt, ratedPower } from '../machine/machine';
import { Motions } from '../path/motions';
import { Samples } from '../simulate/samples';

/** Share of the mains that reaches the cut, and what a machine takes besides, kW: its own, and a share of its rated power (estimates). */
const DRIVE = 0.85;
const IDLE = { own: 0.6, ofRated: 0.12 };

/**
 * Energy of a run, kWh: what its cuts take, and what the machine takes as long as it runs. Estimates.
 * @param minutes of the whole run
 */
export function energyOf(samples: Samples, { rpm }: Motions, machine: Machine, minutes: number): number {
  let cut = 0;
  for (let i = 0; i < samples.count; i++)
    cut += (samples.load[i] * powerAt(machine, rpm[samples.motion[i]]) * samples.seconds[i]) / 3600;
  return cut / DRIVE + ((IDLE.own + IDLE.ofRated * ratedPower(machine)) * minutes) / 60;
}

/** What a cut that gives so many kJ takes from the mains, kWh. Estimate. */
export const drawnBy = (kilojoules: number): number => kilojoules / 3600 / DRIVE;
