import { readFileSync, readdirSync } from 'node:fs';
import { join, relative } from 'node:path';

const files = readdirSync(__dirname, { recursive: true, withFileTypes: true })
  .filter((f) => f.isFile() && /(?<!\.test)(?<!\.d)\.ts$/.test(f.name))
  .map((f) => join(f.parentPath, f.name));

/** Only files whose classes are described by decorators need anything to be there before them. */
const described = files.filter((f) => /^\s*@\w+\(/m.test(readFileSync(f, 'utf8')));

/** As it is before anything was imported. */
function forgetMetadata(): void {
  for (const name of Object.getOwnPropertyNames(Reflect))
    if (/metadata/i.test(name)) delete (Reflect as unknown as Record<string, unknown>)[name];
}

test('there are files to try', () => expect(described.length).toBeGreaterThan(20));

test.each(described.map((f) => relative(__dirname, f)))('%s can be imported alone', (file) => {
  forgetMetadata();
  jest.isolateModules(() => expect(() => jest.requireActual(`./${file}`)).not.toThrow());
});
