import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import Ajv from 'ajv/dist/2020';
import { IsString } from 'class-validator';
import { jobSchema } from './schema';

const root = join(__dirname, '../../../..');
const demo = join(root, 'demo/jobs');
const validate = new Ajv({ strict: false, allErrors: true }).compile(jobSchema());
const read = (file: string) =>
  JSON.parse(readFileSync(join(demo, file), 'utf8')) as Record<string, never> & {
    setups: { operations: { params: object }[] }[];
  };

test.each(readdirSync(demo).filter((f) => f.endsWith('.json')))('%s follows the schema', (file) => {
  expect(validate(read(file)) || validate.errors).toBe(true);
});

test('what the reader refuses, the schema refuses', () => {
  const refused = (change: (job: ReturnType<typeof read>) => void) => {
    const job = read('vane-hub-plate.json');
    change(job);
    return !validate(job);
  };
  expect(refused((j) => Object.assign(j, { colour: 1 }))).toBe(true);
  expect(refused((j) => delete (j as Record<string, unknown>).machine)).toBe(true);
  expect(refused((j) => Object.assign(j.setups[0].operations[1].params, { stepover: -1 }))).toBe(true);
  expect(refused((j) => Object.assign(j.setups[0].operations[1], { kind: 'magic' }))).toBe(true);
});

test('the schema in the documentation is the one in force', () => {
  expect(JSON.parse(readFileSync(join(root, 'docs/job-file.schema.json'), 'utf8'))).toEqual(jobSchema());
});

test('it describes nothing but what stands in a job', () => {
  class Elsewhere {
    @IsString() word!: string;
  }
  expect(jobSchema().$defs).not.toHaveProperty(Elsewhere.name);
});
