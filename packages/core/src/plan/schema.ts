import { jobSchema as schemaWith } from '../document/schema';
import { ALL_KINDS } from '../operation/registry';

/** JSON Schema of the job file, with every kind of operation there is. */
export const jobSchema = () => schemaWith(ALL_KINDS);
