import { care, note } from './words';

/** What is told before a program is released, beside what plan and proof tell. */
export const RELEASE = {
  'beyond-pockets': care<{ tools: string; pockets: number; machine: string }>(
    (d) => `The program calls ${d.tools}; ${d.machine} has ${d.pockets} pockets`,
    'Number the tools by its pockets on the Release page, or make sure that its control knows them by these numbers',
  ),
  'pocket-other': note<{ tool: string; number: number; now: string }>(
    (d) => `Pocket ${d.number} holds ${d.now}; the program calls ${d.tool} from it`,
    'Change the tools before the program is loaded, and set the length anew',
  ),
  'pockets-unknown': note<{ tools: string }>(
    (d) => `${d.tools}: nobody has said that they stand in their pockets`,
    'Load them and set their lengths; on its page the machine keeps which tool stands where',
  ),
  departs: note<{ operation: string; brief: string }>(
    (d) => `“${d.operation}”: ${d.brief}`,
    'Take the suggested speed and feed, or leave it where you know it runs',
  ),
  'departs-over': care<{ operation: string; brief: string }>(
    (d) => `“${d.operation}” runs faster than is suggested: ${d.brief}`,
    'Take the suggested speed and feed, or see to it that the first part is watched here',
  ),
  'hand-without-word': care<{ operation: string }>(
    (d) => `“${d.operation}” stops the program, and nothing tells whoever stands there what to do`,
    'Write what is to be done into “Told at the machine”',
  ),
  'switched-off': care<{ operations: string; number: number }>(
    (d) => `${d.number === 1 ? 'One operation is' : `${d.number} operations are`} switched off: ${d.operations}`,
    'Switch on what belongs to it, or delete what does not',
  ),
  'edge-ends': care<{ tool: string; number: number; share: number }>(
    (d, say) => `T${d.number} ${d.tool} wears ${say.number(d.share, 1)} edges in one run (estimate)`,
    'Have a second tool ready and stop before it is worn, or run it slower',
  ),
  'compensated-unseen': note<{ tool: string; number: number }>(
    (d) =>
      `The control moves the path of T${d.number} ${d.tool} by its register; the proof takes what the job says for it`,
    'Compare the register with the sheet before the first part',
  ),
  'gripped-unseen': care<{ operation: string }>(
    (d) => `After “${d.operation}” the work is held in another way; the proof knows only the clamps that are drawn`,
    'Draw the clamps as they stand from there on, and watch the first approach',
  ),
};
