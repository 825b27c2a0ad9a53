/** Runs a released program on a simulated machine, and says each line once it is kept; to be killed. */
import { releaseOn } from './released';

const [place] = process.argv.slice(2);
const { open, run } = releaseOn(place);
const stand = open(run, ({ view }) => process.stdout.write(`${view.state} ${view.line}\n`));
void (async () => {
  for (const axis of ['x', 'y'] as const) await stand.press({ press: 'touch zero', axis });
  await stand.press({ press: 'touch zero', axis: 'z', n: 4 });
  await stand.press({ press: 'start' });
})();
