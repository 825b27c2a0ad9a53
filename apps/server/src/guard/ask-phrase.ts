import { createInterface } from 'node:readline';
import { SHORTEST_PHRASE } from './door';

/**
 * Asks whoever starts the server for the pass phrase of the shop, until it is long enough.
 * @returns undefined where nobody answers
 */
export async function askPhrase(
  input: NodeJS.ReadableStream,
  output: NodeJS.WritableStream,
  host: string,
): Promise<string | undefined> {
  const lines = createInterface({ input, output, prompt: `At least ${SHORTEST_PHRASE} letters: ` });
  output.write(`Others on the network will reach it on ${host}. Choose a pass phrase for the shop.\n`);
  lines.prompt();
  for await (const phrase of lines) {
    if (phrase.length >= SHORTEST_PHRASE) return phrase;
    lines.prompt();
  }
  return undefined;
}
