/** The verdict on some ways in sentences. */
import { formatNumber, formatTime } from '../../quantity/units';
import { Flip, Priced, Verdict, costInBatch } from './verdict';

const money = (amount: number) => amount.toFixed(2);
const percent = (share: number) => `${formatNumber(Math.abs(share) * 100, Math.abs(share) < 0.1 ? 1 : 0)} %`;

/** Times that differ by less are the same, as a share. */
const SAME_TIME = 0.0005;
/** A batch this near to a whole number is it. */
const TIE = 1e-6;

function flipText({ what, at }: Flip, rate: number, batch: number): string {
  if (what === 'batch')
    return at > batch
      ? `${formatNumber(Math.floor(at + TIE) + 1, 0)} or more are made`
      : `${formatNumber(Math.ceil(at - TIE) - 1, 0)} or fewer are made`;
  if (what === 'machine rate')
    return `the machine costs ${at > rate ? 'more' : 'less'} than ${formatNumber(at, 0)} an hour`;
  if (what === 'cutting force')
    return at > 1
      ? `the metal takes ${percent(at - 1)} more force to cut`
      : `the metal takes only ${percent(at)} of the force to cut`;
  return at > 1 ? `edges last ${percent(at - 1)} longer` : `edges last only ${percent(at)} as long`;
}

/** The nearest flip of each sort for one way. */
const flipsOf = (flips: Flip[], id: string): Flip[] =>
  (['edge life', 'machine rate', 'cutting force', 'batch'] as const).flatMap(
    (what) => flips.find((f) => f.what === what && f.other === id) ?? [],
  );

/** Flips further off than this are not told: a life, or a rate, so many times another. */
const FAR = 4;
const isNear = ({ what, at }: Flip, rate: number): boolean => {
  // How many are made is somebody's to choose, however far off.
  if (what === 'batch') return true;
  const times = what === 'machine rate' ? at / rate : at;
  return times < FAR && times > 1 / FAR;
};

/**
 * Which way is best, by how much, how sure, and what would change it.
 * @param rate of the machine, an hour
 * @param name of a candidate
 * @param batch parts that share what is spent once
 */
export function verdictText(
  verdict: Verdict,
  priced: Priced[],
  rate: number,
  name: (id: string) => string,
  batch = 1,
): string[] {
  const of = (id: string) => priced.find((p) => p.id === id)!;
  const cost = (id: string) => costInBatch(of(id), rate, batch);
  const { cheapest, next, dearer = 0, sure, shares, quickest, kindest, flips } = verdict;
  if (!next) return [`“${name(cheapest)}” is the only one that can be cut: ${money(cost(cheapest))} a part.`];
  const said: string[] = [];
  // Of two what is rounded up for one is rounded down for the other.
  const others = priced.length === 2 ? 1 - Math.round(100 * shares[cheapest]) / 100 : shares[next];
  if (sure === 'a draw')
    said.push(
      `On cost it is a draw: “${name(cheapest)}” takes ${money(cost(cheapest))} a part, “${name(next)}” ${money(cost(next))}; as far as times and edges can be known, one is the cheaper in ${percent(shares[cheapest])} of the cases, the other in ${percent(others)}.`,
    );
  else
    said.push(
      `“${name(cheapest)}” ${sure === 'wins' ? 'costs least' : 'likely costs least'}: ${money(cost(cheapest))} a part, ${percent(dearer / (1 + dearer))} less than “${name(next)}” at ${money(cost(next))}.`,
    );
  const fast = of(quickest);
  const other = quickest === cheapest ? of(next) : of(cheapest);
  const less = 1 - fast.minutes / other.minutes;
  if (Math.abs(less) >= SAME_TIME)
    said.push(
      `“${name(quickest)}” is quickest: ${formatTime(fast.minutes)}, ${percent(less)} ${less >= 0 ? 'less' : 'more'} than “${name(other.id)}”.`,
    );
  const near = flipsOf(flips, next).filter((f) => isNear(f, rate));
  if (near.length > 0)
    said.push(
      `“${name(next)}” becomes the cheaper one when ${near.map((f) => flipText(f, rate, batch)).join(', or when ')}.`,
    );
  if (of(kindest).spikes < of(cheapest).spikes)
    said.push(
      `“${name(kindest)}” is kindest to its tool: ${of(kindest).spikes} spikes of load against ${of(cheapest).spikes}.`,
    );
  return said;
}
