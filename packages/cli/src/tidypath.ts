import { check, edits, importCommand, kit, post, prove, suggestCommand } from './commands';
import { compareCommand } from './compare';
import { UsageError } from './files';
import { features, plan } from './models';
import { runCommand } from './run';
import { sheetCommand } from './sheet';

const HELP = `tidypath COMMAND

  check JOB                                        findings; exit 1 when one of them is a stop; a job is a JSON file, or a
                                                   ZIP with the files it names
  post JOB [--setup ID] [--controller ID] --out DIR
                                                   one program a setup (or a tool), and tools.json
  prove PROGRAM.nc [--job JOB] [--setup ID] [--cell 0.1] [--json]
                                                   time, load, contacts, what is left, gouges; exit 1 on a stop
  kit JOB [--setup ID] [--json]                    what to pull, preset, load and unload for its batch, the edges to
                                                   have, and how long it takes
  compare JOB --feature ID [--setup ID] [--batch N] [--at as-set|same|best] [--json]
                                                   ways to clear a feature, each planned, posted and proved; which costs
                                                   least a part, how sure that is, what would change it
  sheet JOB [--setup ID] [--paper A4|Letter] --out DIR
                                                   the setup sheet of each setup, as a page (HTML) and as PDF; exit 1
                                                   where one has no program
  run PROGRAM.nc --job JOB [--setup ID] [--seed N] [--length T4=-10] [--zero X=12] [--skip] [--cell 0.5] [--out DIR]
          [--json]                                 on the simulated machine, with lengths and zero entered so much wrong:
                                                   what happens, time, loads, sizes; its stream as CSV; exit 1 on an alarm
  edits PROGRAM.nc --job JOB [--setup ID] [--out JOB.json] [--json]
                                                   what was changed in a program that comes back, and the job with what
                                                   its operations take of it; exit 1 where anything is left
  suggest --material ID --tool ID --machine ID [--ae MM] [--ap MM]
          [--purpose rough|finish] [--grip poor|fair|firm] [--hardness HB] [--coolant off|air|mist|flood|through]
          [--boldness 0..1] [--rpm N] [--feed MM_MIN] [--json]
                                                   starting speed and feeds, every limit, the working;
                                                   --tool-file, --material-file and --machine-file take JSON of the
                                                   shop's own, what they do not say is as usual
  import DRAWING.dxf [--unit mm|inch] [--tolerance MM] [--bridge MM] [--json]
                                                   what was recognised in a drawing
  features MODEL [--up top|underside|front|back|left|right] [--unit mm|cm|inch|m] [--body N] [--json]
                                                   what a solid has to be cut, with the side of its file up that is asked
                                                   for, else the likeliest; STEP, STL, OBJ or 3MF
  plan MODEL --material ID --machine ID [--batch N] [--up SIDE] [--unit U] [--body N] --out JOB
                                                   a whole job for a solid, and what it found no way for: a ZIP, or a
                                                   JSON file with its files in a folder beside it
`;

type Command = (args: string[]) => number | Promise<number>;
const COMMANDS: Record<string, Command> = {
  check,
  post,
  prove,
  kit,
  compare: compareCommand,
  sheet: sheetCommand,
  run: runCommand,
  edits,
  suggest: suggestCommand,
  import: importCommand,
  features,
  plan,
};

/** Runs a command, which writes to the console. Returns its exit code: 0; 1 where what it looked at must not run; 2 where it was asked wrongly. */
export async function tidypath([name, ...args]: string[]): Promise<number> {
  const command = COMMANDS[name ?? ''];
  if (!command) {
    process.stdout.write(HELP);
    return name && name !== 'help' && name !== '--help' ? 2 : 0;
  }
  try {
    return await command(args);
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    process.stderr.write(`${error.message}\n`);
    return 2;
  }
}
